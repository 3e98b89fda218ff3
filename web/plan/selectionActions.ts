import type { CodeSet } from '@flimbo/core/codes'
import { quantity } from '@flimbo/core/formats'
import { readText } from './cells.ts'
import { refuse, report, run, selectedIds, type Latest } from './gridParts.ts'
import type { SelectionActions } from './SelectionBar.tsx'

export const NONE: ReadonlySet<number> = new Set()

/** What can be done to all selected pieces at once. */
export function selectionActions(latest: Latest): SelectionActions {
  return {
    set(column, text) {
      run(latest, async () => {
        const { blocks, named, selected: ids, total } = latest.current
        const reading = readText(column, text, named)
        if (!reading.ok) {
          refuse(latest, reading.sentence)
          return
        }
        // Extras are merged piece by piece; everything else is the same for all.
        const { extra } = reading.set
        if (extra) {
          const rows = (await blocks.between(0, total - 1)).filter(({ id }) => ids === 'all' || ids.has(id))
          await latest.current.edits.edit({
            changes: rows.map((row) => ({ id: row.id, set: { extra: { ...row.extra, ...extra } } })),
          })
          return
        }
        await setAll(latest, reading.set)
      })
    },
    duplicate: () => {
      run(latest, async () => {
        const { ids } = await latest.current.copyPieces(await selectedIds(latest))
        report(latest, `${quantity(ids.length, 'piece')} added, each with a short link of its own.`)
      })
    },
    archive: (on) => {
      run(latest, () => setAll(latest, { archived: on }))
    },
    remove: () => {
      run(latest, () => setAll(latest, { state: 'deleted' }))
    },
    move: () => {
      run(latest, async () => {
        latest.current.setMoving(await selectedIds(latest))
      })
    },
    clear: () => {
      latest.current.setSelected(() => NONE)
    },
  }
}

/** Changes all selected pieces; where all are, the server finds them. */
async function setAll(latest: Latest, set: CodeSet): Promise<void> {
  const { selected: ids, listing, edits } = latest.current
  if (ids === 'all') await edits.edit({ matching: listing.filter, set })
  else await edits.edit({ changes: [...ids].map((id) => ({ id, set })) })
}
