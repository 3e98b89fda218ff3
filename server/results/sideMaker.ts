import type Sqlite from 'better-sqlite3'
import { isOfKind, timePieces, type Dimension } from '@flimbo/core/dimensions'
import type { ChannelRule } from '@flimbo/core/tagging'
import type { Span } from '@flimbo/core/time'
import type { Part } from '../figures/index.ts'
import type { ScanDimension } from '../scans/queries.ts'
import { pieceKeys, type FigureCode } from './codeRows.ts'
import { scanTraits } from './dimensions.ts'
import type { Conversions } from './conversions.ts'
import { quarterHours } from './hours.ts'
import { lookUps } from './lookUps.ts'
import { codeSide, distanceSide, oneSide, recurringSide, timeSide, traitSide, type Side } from './sides.ts'

/** A dimension; or the very places that scans came from, by their numbers. */
export type SideName = Dimension | 'spot'

/** The sides of some questions of the same codes and span, each made once. */
export interface Sides {
  /** Everything under one key where no dimension is named. */
  of(name: SideName | undefined): Side
  /** Has all that were made so far meet their keys. */
  meet(parts: readonly Part<ScanDimension>[]): void
}

/** What sides are made for. */
export interface SidesOf {
  readonly codes: readonly FigureCode[]
  readonly channels: readonly ChannelRule[]
  readonly zone: string
  readonly span: Span
}

/** Makes sides. @throws TooManyBuckets where a span has too many pieces of time */
export function sideMaker(database: Sqlite.Database): (given: SidesOf) => Sides {
  const traits = scanTraits(database)
  const { placeOf } = lookUps(database)

  function make(name: SideName, { codes, channels, zone, span }: SidesOf): Side {
    if (name === 'spot') return traitSide(traits.spot)
    if (name === 'distance') return distanceSide(new Map(codes.map((code) => [code.id, code])), placeOf)
    if (isOfKind(name, 'time')) return timeSide(timePieces(zone, span, name))
    if (isOfKind(name, 'recurring')) return recurringSide(name, quarterHours(zone))
    if (isOfKind(name, 'piece')) {
      const keyOf = pieceKeys(channels)[name]
      return codeSide(new Map(codes.map((code) => [code.id, keyOf(code)])))
    }
    return traitSide(traits[name])
  }

  return (given) => {
    const sides = new Map<SideName | undefined, Side>()
    return {
      of(name) {
        const side = sides.get(name) ?? looksOnce(name === undefined ? oneSide() : make(name, given))
        sides.set(name, side)
        return side
      },
      meet(parts) {
        for (const side of sides.values()) for (const part of parts) side.meet(part)
      },
    }
  }
}

/** Looks through the same conversions once, however many questions are by this side. */
function looksOnce(side: Side): Side {
  const known = new Map<Conversions, Uint32Array>()
  return {
    ...side,
    placesOf(conversions) {
      const places = known.get(conversions) ?? side.placesOf(conversions)
      known.set(conversions, places)
      return places
    },
  }
}
