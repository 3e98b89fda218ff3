import { DEFAULT_RULES, type HouseRules } from './houseRules.ts'
import { TAG_FIELDS, type TagContext, type TaggedPiece, type TagField } from './lint.ts'
import { valuesInUse } from './lookAlike.ts'
import { tidyValue } from './tidy.ts'

/** How often each value of each field is in use. */
export type ValueCounts = Readonly<Record<TagField, ReadonlyMap<string, number>>>

type Tags = Pick<TaggedPiece, 'medium' | 'source' | 'campaign' | 'content' | 'term' | 'extra'>

/** Everything analytics can tell two pieces by, as one text: equal for pieces that carry the same tags. */
export function tagsKey({ medium, source, campaign, content, term, extra }: Tags): string {
  const own = Object.entries(extra)
    .filter(([, value]) => value !== '')
    .sort(([a], [b]) => (a < b ? -1 : 1))
  return JSON.stringify([medium, source, campaign, content, term, own])
}

/** Counts that grow as pieces are met, so that the rows of a file are compared with each other as well. */
export interface TagCounts {
  readonly values: Record<TagField, Map<string, number>>
  readonly tags: Map<string, number>
  /** Counts a piece in, or with −1 out again. */
  count(piece: Tags, by?: 1 | -1): void
}

/** How often each value of a tag is used, among the pieces given. */
export function tagCounts(
  known: Partial<ValueCounts> = {},
  sameTags?: ReadonlyMap<string, number>,
): TagCounts {
  const values = Object.fromEntries(TAG_FIELDS.map((field) => [field, new Map(known[field])])) as Record<
    TagField,
    Map<string, number>
  >
  const tags = new Map(sameTags)
  return {
    values,
    tags,
    count(piece, by = 1) {
      for (const field of TAG_FIELDS) bump(values[field], piece[field], by)
      bump(tags, tagsKey(piece), by)
    },
  }
}

function bump(counts: Map<string, number>, key: string, by: number): void {
  const n = (counts.get(key) ?? 0) + by
  if (n > 0) counts.set(key, n)
  else counts.delete(key)
}

/**
 * What the linter must know of everything else, made from counts of what is stored.
 *
 * @param counted whether the pieces that will be looked over are in the counts themselves
 */
export function tagContext({
  rules = DEFAULT_RULES,
  campaign,
  counts,
  counted,
}: {
  rules?: HouseRules
  campaign: string
  counts: TagCounts
  counted: boolean
}): TagContext {
  const isTidy = (value: string) => tidyValue(value, rules) === value
  return {
    rules,
    campaign,
    values: Object.fromEntries(TAG_FIELDS.map((field) => [field, valuesInUse(counts.values[field], isTidy)])),
    alike: (piece) =>
      counts.tags.size === 0 ? 0 : Math.max(0, (counts.tags.get(tagsKey(piece)) ?? 0) - (counted ? 1 : 0)),
  }
}
