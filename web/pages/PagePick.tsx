import { NamePick } from '../ui/index.ts'
import { usePages } from './usePages.ts'

/** A page of the workspace. */
export function PagePick({
  value,
  ...pick
}: {
  readonly label: string
  readonly value: number | null
  readonly fault?: string | undefined
  readonly change: (pageId: number | null) => void
}) {
  return <NamePick {...pick} options={usePages()} chosen={value} />
}
