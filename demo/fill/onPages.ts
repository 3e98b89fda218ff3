import type { Faker } from '@faker-js/faker'
import type { PageEventRow } from '@flimbo/server/scans'
import { OFFICE_PAGE, SEALS_PAGE, TIDES_PAGE } from '../scenario/pages.ts'

/** A scan that was shown a page, by its place in a group that is stored together. */
export interface Opened extends Pick<
  PageEventRow,
  'at' | 'codeId' | 'routeId' | 'revisionId' | 'pageId' | 'apart'
> {
  readonly place: number
  readonly visitor: Visitor
}

/** Who was shown a page, as far as an answer says it. */
export interface Visitor {
  readonly workspaceId: number
  readonly campaignId: number
  readonly day: string
  readonly visitor: string
  readonly language: string
  readonly place: { readonly country: string; readonly region: string; readonly city: string }
  readonly device: { readonly type: string; readonly system: string }
  readonly utm: Readonly<Record<string, string>>
}

type Did = Pick<PageEventRow, 'kind' | 'part' | 'item'> & { readonly afterMs: number }

const SECOND = 1000
/** How many who looked at a page for so long go on to look for longer. */
const STAYS: readonly (readonly [seconds: number, share: number])[] = [
  [5, 0.9],
  [15, 0.75],
  [30, 0.6],
  [60, 0.4],
  [120, 0.3],
]
const MARKS = [0, 25, 50, 75, 100] as const
/** How many begin to play, and how many of those who got to one mark get to the next. */
const PLAYS = [0.58, 0.86, 0.9, 0.92, 0.95]

/** What somebody did on a page, as people do. */
function actions(faker: Faker, pageId: number): Did[] {
  const done: Did[] = []
  const chance = (share: number) => faker.number.float() < share
  for (const [seconds, share] of STAYS) {
    if (!chance(share)) break
    done.push({ kind: 'stayed', part: '', item: String(seconds), afterMs: seconds * SECOND })
  }
  if (pageId === TIDES_PAGE && chance(0.55)) {
    const part = faker.helpers.weightedArrayElement([
      { value: 'tides', weight: 6 },
      { value: 'times', weight: 3 },
      { value: 'walks', weight: 1 },
    ])
    done.push({ kind: 'link', part, item: 'l', afterMs: 8 * SECOND })
  }
  if (pageId === SEALS_PAGE) {
    for (const [i, mark] of MARKS.entries()) {
      if (!chance(PLAYS[i] ?? 0)) break
      done.push({ kind: 'played', part: 'listen', item: String(mark), afterMs: (4 + i * 2) * SECOND })
    }
    if (chance(0.12)) done.push({ kind: 'link', part: 'book', item: 'l', afterMs: 40 * SECOND })
  }
  if (pageId === OFFICE_PAGE) {
    if (chance(0.3)) done.push({ kind: 'link', part: 'office', item: 'tel0', afterMs: 6 * SECOND })
    if (chance(0.22))
      done.push({ kind: 'contact', part: 'office', item: chance(0.3) ? 'pass' : '', afterMs: 9 * SECOND })
  }
  return done
}

/** What came of scans that were shown pages; programs open a page, and do nothing on it. */
export function onPages(
  faker: Faker,
  opened: readonly Opened[],
  scanIds: ReadonlyMap<number, number>,
): PageEventRow[] {
  return opened.flatMap(({ place, at, apart, visitor: _visitor, ...scan }) => {
    const scanId = scanIds.get(place)
    if (scanId === undefined || apart !== '') return []
    return actions(faker, scan.pageId).map(({ afterMs, ...did }) => ({
      ...scan,
      ...did,
      apart,
      scanId,
      at: at + afterMs,
    }))
  })
}
