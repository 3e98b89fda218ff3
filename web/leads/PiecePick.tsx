import { codesApi } from '@flimbo/core/codes'
import { useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { NamePick } from '../ui/index.ts'

const OFFERED = 50

/** A piece of a campaign. There may be thousands: those that fit what is typed are asked for. */
export function PiecePick({
  campaignId,
  chosen,
  ...pick
}: {
  readonly campaignId: number
  readonly label: string
  readonly chosen: number | null
  readonly change: (codeId: number | null) => void
  readonly width?: number
}) {
  const [typed, setTyped] = useState('')
  const found = useAnswer(codesApi.list, {
    query: { campaignId, pageSize: OFFERED, sort: 'name', ...(typed === '' ? {} : { q: typed }) },
  }).data
  const known = useAnswer(codesApi.get, { params: { id: chosen ?? 0 } }, { enabled: chosen !== null }).data
  const rows = found?.rows ?? []
  const options = known && chosen !== null && !rows.some(({ id }) => id === chosen) ? [known, ...rows] : rows
  return <NamePick {...pick} options={options} chosen={chosen} typing={setTyped} />
}
