import { Alert } from '@mui/material'
import { dayIn } from '@flimbo/core/time'
import { useState } from 'react'
import { useCampaign } from '../campaigns/index.ts'
import { Measurements, Proof, ProofColumn, usePiece, type StaticBenchProps } from '../print/index.ts'
import { useStyles } from '../symbol/index.ts'
import { StaticSheet } from './StaticSheet.tsx'
import { newDraft, useStaticDraft } from './useStaticDraft.ts'

/** The proof of a static code, what is measured of it, and its sheet. */
export function StaticBench({ code, contacts }: StaticBenchProps) {
  const campaign = useCampaign()
  const { lookOf } = useStyles()
  const [fresh] = useState(() => newDraft(dayIn(campaign.zone, Date.now()), campaign.zone))
  const given = useStaticDraft(code, fresh, campaign.id, (id) => {
    contacts.open('static', id)
  })
  const { draft, text, costs } = given
  // More than any symbol holds cannot be drawn: what was typed is said to be too much, and a blank stands here.
  const drawn = costs.side === null || text === '' ? ' ' : text
  const name = draft.name || 'New static code'
  const piece = usePiece(
    { name, text: drawn, link: '' },
    {
      look: lookOf(draft.styleId),
      level: draft.level,
      sizeMm: draft.sizeMm,
      viewingM: draft.viewingM,
    },
  )
  return (
    <>
      <ProofColumn>
        <Alert severity="warning" variant="outlined">
          Once it is printed, a static code can neither be changed nor counted.
        </Alert>
        <Proof name={name} scene={piece.scene} mm={draft.sizeMm} />
        <Measurements
          measured={piece.measured}
          change={({ mm, level }) => {
            // The look belongs to the house style, which is designed at a piece.
            given.set({
              ...(mm === undefined ? {} : { sizeMm: mm }),
              ...(level === undefined ? {} : { level }),
            })
          }}
        />
      </ProofColumn>
      <StaticSheet code={code} given={given} symbol={piece} contacts={contacts} />
    </>
  )
}
