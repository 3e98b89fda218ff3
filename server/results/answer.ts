import type Sqlite from 'better-sqlite3'
import {
  filterEntries,
  isOfKind,
  timePieces,
  type Dimension,
  type Filters,
  type TimeDimension,
} from '@flimbo/core/dimensions'
import { NO_FIGURES, rankRows, type Answer, type Question } from '@flimbo/core/results'
import type { ChannelRule } from '@flimbo/core/tagging'
import { spanOfDays } from '@flimbo/core/time'
import { overlap, type FactStore } from '../figures/index.ts'
import type { ScanDimension } from '../scans/queries.ts'
import { citySpots } from './citySpots.ts'
import { codeRows, type FigureCode } from './codeRows.ts'
import { keyNames } from './keyNames.ts'
import { conversionStore } from './conversionStore.ts'
import { laneLeads } from './laneLeads.ts'
import { lookUps } from './lookUps.ts'
import { countQuestions, questionCounts } from './questionCount.ts'
import { questionRows, type FoundRows } from './questionRows.ts'
import type { Within } from './scope.ts'
import { sideMaker } from './sideMaker.ts'

/** Days of a zone, both included. */
interface Days {
  readonly from: string
  readonly to: string
}

/** Questions of the same scope and days, and the days they are held against. */
export interface AskedFigures extends Days {
  readonly workspaceId: number
  readonly within: Within
  readonly zone: string
  readonly before: Days | null
  /** Whose figures they are held against; left out where they are their own. */
  readonly other?: Within | undefined
  readonly channels: readonly ChannelRule[]
  readonly questions: readonly Question[]
}

type Found = FoundRows & Pick<Answer, 'spots' | 'leavesOutFolded'>

/** Answers questions about scans and what came of them. */
export function answers(
  database: Sqlite.Database,
  scans: FactStore<ScanDimension>,
  store = conversionStore(database),
) {
  const sidesOf = sideMaker(database)
  const namesOf = keyNames(database)
  const leadsOf = laneLeads(database)
  const { placeOf } = lookUps(database)

  /** @throws TooManyBuckets where the days have too many pieces of the time that is asked for */
  function find(asked: AskedFigures, codes: readonly FigureCode[], { from, to }: Days): Found[] {
    const { workspaceId, within, zone, channels, questions } = asked
    const span = spanOfDays(zone, from, to)
    const sides = sidesOf({ codes, channels, zone, span })
    const countOf = questionCounts({ codes, within, sides, channels })
    const counts = questions.map(({ by, filters }) => ({
      count: countOf(by, filters),
      // Where a city lies is told by its very places.
      spots: by[0] === 'city' ? countOf(['spot'], filters) : null,
    }))
    const parts = [...scans.parts()].filter((part) => overlap(part.span, span) !== 'none')
    sides.meet(parts)
    const conversions = store.of(workspaceId, new Set(codes.map(({ id }) => id)), span)
    // They may bring keys that no scan has: these are met before it is known how many there are.
    for (const { count } of counts) for (const side of [count.a, count.b]) side.placesOf(conversions)

    const counted = countQuestions(
      parts,
      span,
      counts.flatMap(({ count, spots }) => (spots ? [count, spots] : [count])),
    )
    return counts.flatMap(({ count, spots }, i) => {
      const own = counted.get(count)
      if (!own) return []
      const ofSpots = spots && counted.get(spots)
      return {
        ...questionRows(questions[i]?.by ?? [], count, own, conversions),
        spots: ofSpots ? citySpots(ofSpots.pairs.counts(), spots.a.keys.list, placeOf) : {},
        leavesOutFolded: own.leavesOutFolded,
      }
    })
  }

  return (asked: AskedFigures): Answer[] => {
    const { questions, before, other } = asked
    const codes = codeRows(database, asked.within)
    const earlierCodes = other ? codeRows(database, other) : codes
    const byId = new Map(codes.map((code) => [code.id, code]))
    const now = find(asked, codes, asked)
    const aligned = before && alignTime(asked, before)
    const earlier =
      before &&
      aligned &&
      find(
        { ...asked, within: other ?? asked.within, questions: questions.map(aligned.question) },
        earlierCodes,
        before,
      )
    return questions.map((question, i): Answer => {
      const { rows = [], total = NO_FIGURES, spots = {}, leavesOutFolded = false } = now[i] ?? {}
      const then = earlier?.[i]
      const ranked = rankRows(question, rows, then && aligned ? aligned.rows(question.by, then.rows) : null)
      return {
        ...ranked,
        total: { ...total, before: then?.total ?? null },
        names: Object.fromEntries(
          question.by.flatMap((dimension, side) => {
            const keys = new Set(ranked.rows.map((row) => row.keys[side] ?? ''))
            const named = namesOf(dimension, keys, byId)
            return named ? [[dimension, named]] : []
          }),
        ),
        spots: shownSpots(spots, ranked.rows),
        leads: leadsOf(question.by, ranked.rows, byId),
        leavesOutFolded: leavesOutFolded || (then?.leavesOutFolded ?? false),
      }
    })
  }
}

const shownSpots = (spots: Answer['spots'], rows: Answer['rows']): Answer['spots'] =>
  Object.fromEntries(
    rows.flatMap(({ keys: [city = ''] }) => {
      const spot = spots[city]
      return spot ? [[city, spot]] : []
    }),
  )

/** Pieces of time of two periods, the first beside the first and so on: their keys are those of the period that is shown. */
function alignTime({ zone, from, to }: AskedFigures, before: Days) {
  const piecesIn = (unit: TimeDimension, days: Days) =>
    timePieces(zone, spanOfDays(zone, days.from, days.to), unit)
  const known = new Map<Dimension, { toThen: Map<string, string>; toNow: Map<string, string> }>()
  function pairsOf(dimension: Dimension) {
    if (!isOfKind(dimension, 'time')) return null
    const there = known.get(dimension)
    if (there) return there
    const then = piecesIn(dimension, before)
    const pairs = piecesIn(dimension, { from, to }).flatMap(({ key }, i): [string, string][] =>
      then[i] ? [[key, then[i].key]] : [],
    )
    const made = { toThen: new Map(pairs), toNow: new Map(pairs.map(([a, b]) => [b, a])) }
    known.set(dimension, made)
    return made
  }
  return {
    /** The question with the keys of time of the days before. */
    question: (question: Question): Question => ({
      ...question,
      filters: Object.fromEntries(
        filterEntries(question.filters).map(([dimension, keys]) => {
          const pairs = pairsOf(dimension)
          return [dimension, pairs ? keys.map((key) => pairs.toThen.get(key) ?? '') : keys]
        }),
      ) satisfies Filters,
    }),
    /** Rows of the days before under the keys of the days that are shown; what stands beside nothing is left out. */
    rows: (by: readonly Dimension[], rows: FoundRows['rows']): FoundRows['rows'] =>
      rows.flatMap(({ keys, ...figures }) => {
        const shown = keys.map((key, side) => {
          const dimension = by[side]
          const pairs = dimension && pairsOf(dimension)
          return pairs ? pairs.toNow.get(key) : key
        })
        return shown.every((key) => key !== undefined) ? [{ keys: shown, ...figures }] : []
      }),
  }
}
