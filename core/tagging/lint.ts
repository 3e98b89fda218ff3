import { tagPairs, type ExtraValues } from './utm.ts'
import { tagsIn, withoutNames } from './address.ts'
import { z } from 'zod'
import { ADDRESS_MAX, readUrl } from '../api/index.ts'
import { fillPattern, type PatternFields } from './contentPattern.ts'
import type { HouseRules } from './houseRules.ts'
import { NO_VALUES, type ValuesInUse } from './lookAlike.ts'
import { personalPart, withoutPersonal } from './personal.ts'
import { tidyValue } from './tidy.ts'

/** What the linter finds, in the order in which it matters. */
export const FINDING_KINDS = [
  'missing',
  'personal-data',
  'off-list',
  'campaign-differs',
  'look-alike',
  'letter-case',
  'spaces',
  'escaping',
  'separator',
  'length',
  'same-tags',
  'pattern',
  'in-destination',
] as const
export type FindingKind = (typeof FINDING_KINDS)[number]

export const TAG_FIELDS = ['medium', 'source', 'campaign', 'content', 'term'] as const
export type TagField = (typeof TAG_FIELDS)[number]

/**
 * One thing that is wrong or doubtful with a piece's tags. `field` is a UTM field, the name of one of the
 * workspace's own parameters, or `destination`. `fix` is the value that field should take; null where only a
 * person can know. `refused` marks what the house rules forbid.
 */
export const finding = z.object({
  kind: z.enum(FINDING_KINDS),
  field: z.string(),
  sentence: z.string(),
  fix: z.string().nullable(),
  refused: z.boolean(),
})
export type Finding = z.infer<typeof finding>

/** What the linter reads of a piece. */
export interface TaggedPiece extends PatternFields {
  readonly content: string
  readonly extra: ExtraValues
  /** Empty where there is none yet. */
  readonly destination: string
}

/** What the linter must know of everything else. */
export interface TagContext {
  readonly rules: HouseRules
  readonly values: Readonly<Partial<Record<TagField, ValuesInUse>>>
  /** The campaign value the piece's siblings carry. */
  readonly campaign: string
  /** How many other pieces of the campaign carry exactly these tags. */
  readonly alike: (piece: TaggedPiece) => number
}

/** Analytics suites cut values at about this many characters. Common practice, no published source. */
export const TAG_LENGTH_SENSIBLE = 100

const found = (
  kind: FindingKind,
  field: string,
  sentence: string,
  fix: string | null = null,
  refused = false,
): Finding => ({ kind, field, sentence, fix, refused })

/** Takes what a value should become, unless nothing would be left of it or it already is that. */
function fixTo(was: string, is: string, fallback = ''): string | null {
  const value = is === '' ? fallback : is
  return value === '' || value === was ? null : value
}

/** Of so many values what is said of them is kept. */
const KEPT_MAX = 100_000

/** What is said of a value by itself is the same under the same rules, whatever piece it stands on, and whenever. */
const spelled = new WeakMap<HouseRules, Map<string, Finding[]>>()

function spellingOf(field: string, value: string, rules: HouseRules, name: string): Finding[] {
  let known = spelled.get(rules)
  if (!known || known.size > KEPT_MAX) {
    known = new Map()
    spelled.set(rules, known)
  }
  const key = `${field}\0${value}`
  const kept = known.get(key)
  if (kept) return kept
  const findings = lintSpelling(field, value, rules, name)
  // A fix for personal data may be made of the piece's name, so it is the piece's own.
  if (!findings.some(({ kind }) => kind === 'personal-data')) known.set(key, findings)
  return findings
}

function lintValue(field: string, value: string, context: TagContext, name: string): Finding[] {
  const spelling = spellingOf(field, value, context.rules, name)
  return (TAG_FIELDS as readonly string[]).includes(field)
    ? [...spelling, ...lintAgainstOthers(field as TagField, value, context)]
    : spelling
}

/** What can be said of one value by itself. */
function lintSpelling(field: string, value: string, rules: HouseRules, name: string): Finding[] {
  if (value === '') return []
  const findings: Finding[] = []
  const tidy = fixTo(value, tidyValue(value, rules))
  const personal = personalPart(value)
  if (personal) {
    const rest = tidyValue(withoutPersonal(value, personal), rules)
    const fix = personalPart(rest) || rest === '' ? tidyValue(name, rules) : rest
    findings.push(
      found(
        'personal-data',
        field,
        `“${personal.text}” is ${personal.kind === 'e-mail address' ? 'an' : 'a'} ${personal.kind}: personal data does not belong in an address that sites and analytics keep.`,
        personalPart(fix) ? null : fixTo(value, fix),
      ),
    )
  }
  if (/\s/.test(value))
    findings.push(found('spaces', field, `“${value}” has spaces, which show as + or %20 in reports.`, tidy))
  if (/[^A-Za-z0-9._~\s-]/.test(value))
    findings.push(
      found(
        'escaping',
        field,
        `“${value}” has characters that are escaped in an address and may be read in another way.`,
        tidy,
      ),
    )
  if (rules.letterCase === 'lower' && value !== value.toLowerCase())
    findings.push(
      found(
        'letter-case',
        field,
        `“${value}” has capitals; reports count “${value.toLowerCase()}” apart from it.`,
        tidy,
      ),
    )
  const other = rules.separator === '-' ? '_' : '-'
  if (rules.separator !== 'any' && value.includes(other))
    findings.push(
      found(
        'separator',
        field,
        `“${value}” joins words with “${other}”; the house rule is “${rules.separator}”.`,
        tidy,
      ),
    )
  if (value.length > TAG_LENGTH_SENSIBLE) {
    const cut = value.slice(0, TAG_LENGTH_SENSIBLE)
    findings.push(
      found(
        'length',
        field,
        `${String(value.length)} characters are more than most analytics suites keep (about ${String(TAG_LENGTH_SENSIBLE)}).`,
        tidyValue(cut.replace(/[-_ ][^-_ ]*$/, ''), rules) || cut,
      ),
    )
  }
  return findings
}

/** What can be said of a value only beside the values of other pieces. */
function lintAgainstOthers(field: TagField, value: string, { rules, values }: TagContext): Finding[] {
  const findings: Finding[] = []
  const better = (values[field] ?? NO_VALUES).better(value)
  if (better !== null)
    findings.push(
      found(
        'look-alike',
        field,
        `“${value}” looks like “${better}”, which is in use already: reports would count them apart.`,
        better,
      ),
    )
  if (field === 'medium' && value !== '' && rules.media.length > 0 && !rules.media.includes(value)) {
    const nearest = rules.media.find((each) => tidyValue(each, rules) === tidyValue(value, rules)) ?? null
    findings.push(
      found(
        'off-list',
        field,
        `“${value}” is not among the media of the house: ${rules.media.join(', ')}.`,
        nearest,
        rules.offList === 'refuse',
      ),
    )
  }
  return findings
}

function lintMissing(piece: TaggedPiece, rules: HouseRules): Finding[] {
  const findings: Finding[] = []
  for (const field of ['medium', 'source', 'campaign'] as const) {
    if (piece[field] === '')
      findings.push(
        found('missing', field, `There is no ${field}: without it visits cannot be told apart.`, null, true),
      )
  }
  for (const field of rules.required) {
    if (piece[field] === '')
      findings.push(
        found(
          'missing',
          field,
          `The house rules ask for a ${field}.`,
          field === 'content'
            ? fixTo('', contentFromPattern(piece, rules), tidyValue(piece.name, rules))
            : null,
        ),
      )
  }
  for (const { name, label, required } of rules.parameters) {
    if (required && !piece.extra[name])
      findings.push(found('missing', name, `The house rules ask for ${label}.`))
  }
  return findings
}

/** The content the house's pattern makes of a piece; empty where there is no pattern. */
export function contentFromPattern(piece: PatternFields, rules: HouseRules): string {
  return rules.contentPattern === '' ? '' : tidyValue(fillPattern(rules.contentPattern, piece), rules)
}

/** Many pieces lead to the same address: it is read once for a context. */
const readBefore = new WeakMap<TagContext, Map<string, ReturnType<typeof readTagged>>>()

function readTagged(destination: string, { parameters }: HouseRules) {
  const url = readUrl(destination)
  if (!url) return null
  const own = parameters.map(({ name }) => name)
  return { url, inside: tagsIn(url, own) }
}

function readDestination(destination: string, context: TagContext) {
  const known = readBefore.get(context) ?? new Map<string, ReturnType<typeof readTagged>>()
  readBefore.set(context, known)
  let read = known.get(destination)
  if (read === undefined) {
    read = readTagged(destination, context.rules)
    known.set(destination, read)
  }
  return read
}

function lintDestination(
  { destination, medium, source, campaign, term, content, extra }: TaggedPiece,
  context: TagContext,
): Finding[] {
  const read = readDestination(destination, context)
  if (!read) return []
  const { url, inside } = read
  const findings: Finding[] = []
  if (inside.length > 0) {
    const names = inside.map(({ name, value }) => `${name}=${value}`).join(', ')
    findings.push(
      found(
        'in-destination',
        'destination',
        `The destination already carries ${names}: the piece’s own values take the place of equal names, and the rest is mixed into every piece’s visits.`,
        withoutNames(url, new Set(inside.map(({ name }) => name))),
      ),
    )
  }
  const pairs = tagPairs({ medium, source, campaign, term, content }, extra)
  // Escaped, a sign is nine at most; short addresses need not be written out.
  const most = pairs.reduce(
    (sum, [name, value]) => sum + name.length * 9 + value.length * 9 + 2,
    url.href.length,
  )
  const tags = most <= ADDRESS_MAX ? '' : new URLSearchParams(pairs).toString()
  if (url.href.length + tags.length + 1 > ADDRESS_MAX)
    findings.push(
      found(
        'length',
        'destination',
        `With its tags the address is longer than ${String(ADDRESS_MAX)} characters, which some browsers and sites cut.`,
      ),
    )
  return findings
}

/**
 * Looks a piece's tags over. Pure: the same piece in the same context always gets the same findings, and
 * those with a fix are gone once their fixes are made (see `applyFixes`).
 */
export function lint(piece: TaggedPiece, context: TagContext): Finding[] {
  const { rules } = context
  const findings = lintMissing(piece, rules)
  for (const field of TAG_FIELDS) {
    if (piece[field] !== '') findings.push(...lintValue(field, piece[field], context, piece.name))
  }
  for (const [name, value] of Object.entries(piece.extra))
    if (value !== '') findings.push(...lintValue(name, value, context, piece.name))
  const ours = tidyValue(context.campaign, rules) || context.campaign
  if (piece.campaign !== '' && piece.campaign !== context.campaign && piece.campaign !== ours) {
    findings.push(
      found(
        'campaign-differs',
        'campaign',
        `The campaign value “${piece.campaign}” differs from “${context.campaign}”, which its sibling pieces carry.`,
        ours,
      ),
    )
  }
  const alike = context.alike(piece)
  if (alike > 0) {
    const fix = fixTo(
      piece.content,
      contentFromPattern(piece, rules),
      tidyValue(`${piece.content} ${piece.name}`, rules),
    )
    findings.push(
      found(
        'same-tags',
        'content',
        `${alike === 1 ? 'Another piece carries' : `${String(alike)} other pieces carry`} the same tags: analytics cannot tell them apart, only Flimbo can. Give each its own content.`,
        fix,
      ),
    )
  } else {
    const wanted = contentFromPattern(piece, rules)
    if (wanted !== '' && piece.content !== '' && piece.content !== wanted)
      findings.push(found('pattern', 'content', `By the house’s pattern the content is “${wanted}”.`, wanted))
  }
  findings.push(...lintDestination(piece, context))
  return findings.sort((a, b) => FINDING_KINDS.indexOf(a.kind) - FINDING_KINDS.indexOf(b.kind))
}

/** The values a piece takes when its findings are fixed: the weightiest finding of each field decides. */
export function fixesOf(findings: readonly Finding[]): Record<string, string> {
  const fixes: Record<string, string> = {}
  for (const { field, fix } of findings) if (fix !== null && !(field in fixes)) fixes[field] = fix
  return fixes
}

/** Which parts of a piece fixes set: those for the workspace's own parameters go among the piece's other extras. */
export function fixSet(
  fixes: Readonly<Record<string, string>>,
  extra: ExtraValues,
): {
  medium?: string
  source?: string
  campaign?: string
  content?: string
  term?: string
  destination?: string
  extra?: Record<string, string>
} {
  const isOwn = (field: string) =>
    field !== 'destination' && !(TAG_FIELDS as readonly string[]).includes(field)
  const own = Object.entries(fixes).filter(([field]) => isOwn(field))
  return {
    ...Object.fromEntries(Object.entries(fixes).filter(([field]) => !isOwn(field))),
    ...(own.length > 0 ? { extra: { ...extra, ...Object.fromEntries(own) } } : {}),
  }
}

/** A piece with fixes made. */
export function applyFixes(piece: TaggedPiece, fixes: Readonly<Record<string, string>>): TaggedPiece {
  return { ...piece, ...fixSet(fixes, piece.extra) }
}
