import { useEffect, useEffectEvent, useState } from 'react'
import type { Cell } from './range.ts'
import { BLOCK } from '../codes/index.ts'
import type { PlanData } from './usePlanData.ts'

/** The active cell of the grid. It follows the inspected piece, and the inspector follows J and K. */
export function useActivePiece(
  { blocks, total, lines, seen, arrangement }: PlanData,
  inspected: number | null,
  inspect: (id: number) => void,
) {
  const [active, setActive] = useState<Cell>({ piece: 0, column: 1 })
  const place = {
    piece: Math.min(active.piece, Math.max(0, total - 1)),
    column: Math.min(active.column, Math.max(0, arrangement.columns.length - 1)),
  }
  // The inspected piece's row is the active one where it is on the screen: after a link led here, too.
  const follow = useEffectEvent(() => {
    if (inspected === null || blocks.at(active.piece)?.id === inspected) return
    const end = (Math.floor(seen.last / BLOCK) + 1) * BLOCK
    for (let piece = Math.floor(seen.first / BLOCK) * BLOCK; piece < end; piece++)
      if (blocks.at(piece)?.id === inspected) {
        setActive((old) => ({ ...old, piece }))
        return
      }
  })
  // Only another piece, or its row coming in, moves the active cell; a click elsewhere must stand.
  useEffect(() => {
    follow()
  }, [inspected, blocks.total])
  return {
    active: place,
    setActive,
    row: () => blocks.at(place.piece),
    /** Inspects the active piece, or the one some steps on from the inspected one. */
    step: (by: number) => {
      const piece = inspected === null ? place.piece : lines.step(place.piece, by)
      setActive({ piece, column: place.column })
      const row = blocks.at(piece)
      if (row) inspect(row.id)
    },
  }
}
