import { codesApi, type Code, type CodeSet } from '@flimbo/core/codes'
import { routesApi, type Route } from '@flimbo/core/routing'
import { useRef } from 'react'
import { useChange, useVersion } from '../api/index.ts'
import { disagreements, type Disagreement } from '../ui/index.ts'
import {
  CODE_FIELDS,
  codeValues,
  NAMES,
  pieceValues,
  type CodeValues,
  type PieceValues,
} from './pieceFields.ts'
import { readTyped } from './pieceValues.ts'

/** What was stored when the edit began: only what differs from it is sent, so that nothing else is touched. */
interface Base {
  readonly code: Code
  readonly destination: string
}

interface PieceSave {
  readonly isSaving: boolean
  /** Somebody else saved meanwhile: what, and where both differ. */
  readonly conflict: { what: 'destination' | 'piece'; rows: (mine: PieceValues) => Disagreement[] } | null
  /** @returns what the form shows now; null where somebody else's newer copy was met */
  readonly save: (values: PieceValues) => Promise<PieceValues | null>
  /** Goes on from what somebody else stored. @returns what is stored now */
  readonly rebase: () => PieceValues
  /** Follows what is stored, as long as nothing is typed. */
  readonly follow: (code: Code) => PieceValues | null
}

const baseOf = (code: Code): Base => ({ code, destination: code.destination })
const shown = ({ code, destination }: Base): PieceValues => ({ ...pieceValues(code), destination })

/** Stores a piece: its route's destination first, then what differs of the code, each from the version it was read at. */
export function usePieceSave(code: Code, isDirty: boolean): PieceSave {
  const base = useRef(baseOf(code))
  const codeVersion = useVersion<Code>(code.version, isDirty)
  const routeVersion = useVersion<Route>(code.routeVersion, isDirty)
  const changeCode = useChange(codesApi.change)
  const changeRoute = useChange(routesApi.change)
  const { newer: newerRoute } = routeVersion
  const { newer: newerCode } = codeVersion

  async function save(values: PieceValues): Promise<PieceValues | null> {
    const { destination: typed, ...fields } = values
    const destination = typed.trim()
    const from = base.current
    let next = from
    try {
      if (destination !== from.destination) {
        const route = await routeVersion.save((version) =>
          changeRoute.mutateAsync({ params: { id: code.routeId }, body: { version, destination } }),
        )
        if (route === null) return null
        next = { ...next, destination: route.destination }
      }
      const set = changed(fields, pieceValues(from.code))
      if (set !== null) {
        const saved = await codeVersion.save((version) =>
          changeCode.mutateAsync({ params: { id: code.id }, body: { version, ...set } }),
        )
        if (saved === null) return null
        next = { ...next, code: saved }
      }
      return shown(next)
    } finally {
      base.current = next
    }
  }

  function conflict(): PieceSave['conflict'] {
    if (newerRoute !== null)
      return {
        what: 'destination',
        rows: (mine) => disagreements(mine, { ...mine, destination: newerRoute.destination }, DESTINATION),
      }
    if (newerCode === null) return null
    return {
      what: 'piece',
      rows: (mine) => disagreements<CodeValues>(mine, codeValues(newerCode), NAMES),
    }
  }

  return {
    isSaving: changeCode.isPending || changeRoute.isPending,
    conflict: conflict(),
    save,
    rebase() {
      const next = {
        code: newerCode ?? base.current.code,
        destination: newerRoute?.destination ?? base.current.destination,
      }
      codeVersion.rebase()
      routeVersion.rebase()
      base.current = next
      return shown(next)
    },
    follow(stored) {
      if (stored.version < codeVersion.current() || stored.routeVersion < routeVersion.current()) return null
      base.current = baseOf(stored)
      return pieceValues(stored)
    },
  }
}

const DESTINATION = { destination: 'Destination' } as const

/** What of the code is sent: only what was typed anew, as the contract wants it; null where nothing was. */
function changed(fields: Omit<PieceValues, 'destination'>, was: PieceValues): CodeSet | null {
  const names = CODE_FIELDS.filter((field) => fields[field] !== was[field])
  const isExtra = JSON.stringify(fields.extra) !== JSON.stringify(was.extra)
  if (names.length === 0 && !isExtra) return null
  // The contract has just checked what was typed.
  const typed = readTyped(fields) as CodeSet
  return Object.fromEntries(
    Object.entries(typed).filter(
      ([field]) => field === 'extra' || (names as readonly string[]).includes(field),
    ),
  )
}
