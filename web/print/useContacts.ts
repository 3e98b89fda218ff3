import type { Code } from '@flimbo/core/codes'
import { codesApi } from '@flimbo/core/codes'
import { printApi } from '@flimbo/core/print'
import type { StaticCode } from '@flimbo/core/staticCodes'
import { PROOF_STATES, type ProofState } from '@flimbo/core/symbol'
import { useCallback, useMemo, useState } from 'react'
import { useSearchParams } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { BLOCK, isNamedBy, useBlocks, useStatics, type Listing } from '../codes/index.ts'

/** What a contact sheet shows: a piece, or a static code. */
export type Contact =
  | { readonly kind: 'code'; readonly id: number; readonly code: Code }
  | { readonly kind: 'static'; readonly id: number; readonly code: StaticCode }

const NONE: readonly StaticCode[] = []

/** The pieces of a campaign as the contact sheet shows them, its static codes after them, and the one that is open. */
export function useContacts(campaignId: number) {
  const [address, setAddress] = useSearchParams()
  const [search, setSearch] = useState('')
  const [state, setState] = useState<ProofState | null>(null)
  const [seen, setSeen] = useState({ first: 0, last: BLOCK })
  const typed = search.trim()
  const listing = useMemo<Listing>(
    () => ({
      filter: {
        campaignId,
        ...(typed === '' ? {} : { search: typed }),
        ...(state === null ? {} : { print: state }),
      },
      sort: 'name',
      order: 'asc',
      group: '',
    }),
    [campaignId, typed, state],
  )
  const blocks = useBlocks(listing, seen.first, seen.last)
  const all = useStatics(campaignId)
  const statics = useMemo(
    () =>
      (all.rows ?? NONE).filter(
        (code) => isNamedBy(typed, code) && (state === null || code.print.state === state),
      ),
    [all.rows, typed, state],
  )
  const pieces = blocks.total
  const total = pieces === undefined || all.rows === undefined ? undefined : pieces + statics.length
  const at = (i: number): Contact | undefined => {
    const code = blocks.at(i)
    if (code) return { kind: 'code', id: code.id, code }
    const fixed = pieces === undefined ? undefined : statics[i - pieces]
    return fixed && { kind: 'static', id: fixed.id, code: fixed }
  }

  const isNew = address.get('static') === 'new'
  const asked = Number(address.get('static')) || 0
  // One that is not there any more is not waited for.
  const wantedStatic = !all.rows || all.rows.some((each) => each.id === asked) ? asked : 0
  const wanted = Number(address.get('code')) || 0
  const isNamed = wantedStatic > 0 || wanted > 0 || isNew
  const first = isNamed ? undefined : at(0)
  const id = first?.kind === 'code' ? first.id : wanted
  const staticId = first?.kind === 'static' ? first.id : wantedStatic
  // The open piece need not be among those that are shown.
  const open = useAnswer(codesApi.get, { params: { id } }, { enabled: id > 0 && staticId === 0 && !isNew })
  const counts = useAnswer(printApi.summary, { params: { id: campaignId } }).data?.counts
  const code: Code | undefined = open.data?.id === id ? open.data : undefined
  const show = useCallback(
    (kind: Contact['kind'], which: number | 'new') => {
      setAddress({ [kind]: String(which) }, { replace: true })
    },
    [setAddress],
  )
  const see = useCallback((firstSeen: number, lastSeen: number) => {
    setSeen((old) => {
      const isSame =
        Math.floor(old.first / BLOCK) === Math.floor(firstSeen / BLOCK) &&
        Math.floor(old.last / BLOCK) === Math.floor(lastSeen / BLOCK)
      return isSame ? old : { first: firstSeen, last: lastSeen }
    })
  }, [])
  return {
    campaignId,
    filter: listing.filter,
    total,
    /** The static codes that are shown; they stand after the pieces. */
    statics,
    at,
    error: blocks.error ?? all.error ?? (open.isError ? open.error : null),
    retry: () => {
      blocks.retry()
      all.retry()
      void open.refetch()
    },
    counts: counts && countsOf(counts, all.rows ?? NONE),
    search,
    setSearch,
    state,
    setState,
    isNarrowed: typed !== '' || state !== null,
    /** Whether a static code is being made that is not there yet. */
    isNew,
    code,
    fixed: isNew ? undefined : all.rows?.find((each) => each.id === staticId),
    isOpen: ({ kind, id: which }: Contact) =>
      kind === 'code' ? staticId === 0 && !isNew && which === id : which === staticId,
    open: show,
    see,
  }
}
export type Contacts = ReturnType<typeof useContacts>

/** How many pieces and static codes are how far. */
function countsOf(
  pieces: Readonly<Partial<Record<ProofState, number>>>,
  statics: readonly StaticCode[],
): Record<ProofState, number> {
  const counts = Object.fromEntries(PROOF_STATES.map((each) => [each, pieces[each] ?? 0])) as Record<
    ProofState,
    number
  >
  for (const { print } of statics) counts[print.state]++
  return counts
}
