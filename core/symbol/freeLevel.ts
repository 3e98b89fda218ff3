import { LEVELS, type Level } from './capacity.ts'
import { encode, type QrSymbol } from './encode.ts'
import { fit } from './fit.ts'

/**
 * The highest level at which a text takes no larger symbol than at the level that was asked for: what it costs nothing
 * to have more of. The level itself where the text fits none.
 */
export function freeLevel(text: string, level: Level): Level {
  const version = fit(text, level)?.version
  if (version === undefined) return level
  const higher = LEVELS.slice(LEVELS.indexOf(level) + 1)
  return higher.findLast((each) => fit(text, each)?.version === version) ?? level
}

/**
 * The symbol that is printed for a text: as small as its level allows, at the highest level that is as small.
 * @throws SymbolTooLong
 */
export function printedSymbol(text: string, level: Level): QrSymbol {
  return encode(text, freeLevel(text, level))
}
