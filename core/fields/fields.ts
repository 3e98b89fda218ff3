import { z } from 'zod'
import { ADDRESS_MAX, hasControlCharacters } from '../api/index.ts'
import { fileKey } from '../files/index.ts'
import { calendarDay, localMoment } from '../time/index.ts'
import { linkFault } from './address.ts'
import { localised, type Localised } from './localised.ts'
import { openingHours, type OpeningHours } from './openingHours.ts'
import { plainText, richText, type RichText } from './richText.ts'

/** What kind of file a field takes. */
export type FileTake = 'picture' | 'portrait' | 'audio' | 'video' | 'captions' | 'any'

/** When something is open; its zone is the page's. */
export type WeekHours = Omit<OpeningHours, 'zone'>
export interface GeoPoint {
  readonly latitude: number
  readonly longitude: number
}

/** When a field is asked at all: where another of the same row holds this. */
interface Under {
  readonly field: string
  readonly is: unknown
}

interface FieldBase<T> {
  readonly label: string
  readonly help?: string
  /** Left out where it is asked always. What was entered before stays, and is looked at by nobody. */
  readonly under?: Under
  /** The shape of what is kept: whatever can be typed on the way to something right. */
  readonly schema: z.ZodType<T>
  readonly empty: T
  /** What keeps a page with it from being published, as a sentence that says what to do; null where nothing does. */
  readonly fault: (value: T) => string | null
}
/** Something each language has its own of: `fault` looks at one of them. */
interface LocalField<T> extends Omit<FieldBase<Localised<T>>, 'fault'> {
  readonly isEmpty: (value: T) => boolean
  /** Said where no language has it; null where it may be left out. */
  readonly wanted: string | null
  readonly fault: (value: T) => string | null
}

export interface WordsField extends LocalField<string> {
  readonly type: 'words'
  readonly max: number
  readonly isMultiline: boolean
}
export interface RichField extends LocalField<RichText> {
  readonly type: 'rich'
}
export interface FileField extends LocalField<string> {
  readonly type: 'file'
  readonly takes: FileTake
}
export interface TextField extends FieldBase<string> {
  readonly type: 'text'
  readonly max: number
}
export interface AddressField extends FieldBase<string> {
  readonly type: 'address'
}
export interface ChoiceField<C extends string = string> extends FieldBase<C> {
  readonly type: 'choice'
  readonly choices: readonly (readonly [C, string])[]
}
export interface ToggleField extends FieldBase<boolean> {
  readonly type: 'toggle'
}
export interface MomentField extends FieldBase<string> {
  readonly type: 'moment'
}
/** A whole number, or one with decimals; null where there is none. */
export interface NumberField extends FieldBase<number | null> {
  readonly type: 'number'
}
/** A day as `2026-07-03`; empty where there is none. */
export interface DayField extends FieldBase<string> {
  readonly type: 'day'
}
/** Another page, by its number; null where none is chosen. */
export interface PageField extends FieldBase<number | null> {
  readonly type: 'page'
}
/** What a row is known by for as long as it is there; nobody enters it. */
export interface KeyField extends FieldBase<string> {
  readonly type: 'key'
}
export interface HoursField extends FieldBase<WeekHours> {
  readonly type: 'hours'
}
export interface PointField extends FieldBase<GeoPoint | null> {
  readonly type: 'point'
}
export interface ListField<F extends Fields = Fields> extends FieldBase<readonly ValuesOf<F>[]> {
  readonly type: 'list'
  /** What one of them is called. */
  readonly one: string
  readonly max: number
  readonly of: F
}

/** Rows of several kinds, each with fields of its own beside what all rows have. */
export interface KindsField<
  R extends { readonly kind: string } = { readonly kind: string },
> extends FieldBase<readonly R[]> {
  readonly type: 'kinds'
  /** What one of them is called. */
  readonly one: string
  readonly max: number
  readonly kinds: Readonly<Record<string, Fields>>
}

/** A field of a part: how it is entered, kept and checked. */
export type Field =
  | WordsField
  | RichField
  | FileField
  | TextField
  | AddressField
  | ChoiceField
  | ToggleField
  | MomentField
  | HoursField
  | PointField
  | ListField
  | KindsField
  | NumberField
  | DayField
  | PageField
  | KeyField
/** Fields by name. What checks a value of one field does not take another's, so only what they have in common is said. */
export type Fields = Readonly<Record<string, Pick<Field, 'type' | 'label'> & { readonly schema: z.ZodType }>>

/** What fields hold. */
export type ValuesOf<F extends Fields> = { readonly [K in keyof F]: z.output<F[K]['schema']> }

const nothing = () => null

const plain = (max: number, isMultiline: boolean) =>
  z
    .string()
    .max(max, `Write no more than ${max.toLocaleString('en-GB')} characters.`)
    .transform((text) => text.replace(/\r\n?/g, '\n'))
    .refine(
      (text) => !hasControlCharacters(isMultiline ? text.replace(/\n/g, '') : text),
      'Take control characters out of the text.',
    )

const isBlank = (text: string) => text.trim() === ''

interface Options {
  readonly help?: string
  /** Said where it is left out; it may be where there is none. */
  readonly wanted?: string
}

/** Words without looks, in each language. */
export function words(
  label: string,
  max: number,
  { help, wanted, isMultiline = false }: Options & { readonly isMultiline?: boolean } = {},
): WordsField {
  return {
    type: 'words',
    label,
    ...(help === undefined ? {} : { help }),
    max,
    isMultiline,
    schema: localised(plain(max, isMultiline)),
    empty: {},
    isEmpty: isBlank,
    wanted: wanted ?? null,
    fault: nothing,
  }
}

/** A text with paragraphs, lists, emphasis and links, in each language. */
export function rich(label: string, { help, wanted }: Options = {}): RichField {
  return {
    type: 'rich',
    label,
    ...(help === undefined ? {} : { help }),
    schema: localised(richText),
    empty: {},
    isEmpty: (blocks) => isBlank(plainText(blocks)),
    wanted: wanted ?? null,
    fault: nothing,
  }
}

/** An uploaded file, of which each language may have its own. */
export function file(label: string, takes: FileTake, { help, wanted }: Options = {}): FileField {
  return {
    type: 'file',
    label,
    takes,
    ...(help === undefined ? {} : { help }),
    schema: localised(z.union([fileKey, z.literal('')])),
    empty: {},
    isEmpty: isBlank,
    wanted: wanted ?? null,
    fault: nothing,
  }
}

/** A text that is the same in every language: a name, a number. */
export function text(
  label: string,
  max: number,
  { help, wanted, fault }: Options & { readonly fault?: (value: string) => string | null } = {},
): TextField {
  return {
    type: 'text',
    label,
    max,
    ...(help === undefined ? {} : { help }),
    schema: plain(max, false),
    empty: '',
    fault: (value) => (isBlank(value) ? (wanted ?? null) : (fault?.(value) ?? null)),
  }
}

/** Where something leads: a web address, or a telephone number, mail address or place by its scheme. */
export function address(label: string, { help, wanted }: Options = {}): AddressField {
  return {
    type: 'address',
    label,
    ...(help === undefined ? {} : { help }),
    schema: plain(ADDRESS_MAX, false),
    empty: '',
    fault: (value) => (isBlank(value) ? (wanted ?? null) : linkFault(value)),
  }
}

export function choice<const C extends string>(
  label: string,
  choices: readonly [readonly [C, string], ...(readonly [C, string])[]],
): ChoiceField<C> {
  const values = choices.map(([value]) => value)
  return { type: 'choice', label, choices, schema: z.enum(values), empty: choices[0][0], fault: nothing }
}

/** A field that is asked only where another one of the same row holds something. */
export const under = <F extends object>(
  field: string,
  is: unknown,
  asked: F,
): F & { readonly under: Under } => ({
  ...asked,
  under: { field, is },
})

/** Whether a field is asked, given what the others of its row hold. */
export const isAsked = (field: Pick<Field, 'under'>, values: Readonly<Record<string, unknown>>): boolean =>
  field.under === undefined || values[field.under.field] === field.under.is

export function toggle(label: string, empty = false): ToggleField {
  return { type: 'toggle', label, schema: z.boolean(), empty, fault: nothing }
}

/** A moment by the clock of the page's zone: `2026-07-03T09:00`; empty where there is none. */
export function moment(label: string, { wanted }: Options = {}): MomentField {
  return {
    type: 'moment',
    label,
    schema: z.union([localMoment, z.literal('')]),
    empty: '',
    fault: (value) => (value === '' ? (wanted ?? null) : null),
  }
}

const NO_HOURS: WeekHours = { week: [[], [], [], [], [], [], []], except: [] }
export function hours(label: string): HoursField {
  return {
    type: 'hours',
    label,
    schema: openingHours.omit({ zone: true }),
    empty: NO_HOURS,
    fault: ({ week, except }) =>
      [...week, ...except.map(({ slots }) => slots)].every((slots) => slots.length === 0)
        ? 'Give the hours of a day at least.'
        : null,
  }
}

/** A place on earth, in degrees (WGS 84). */
export function point(label: string): PointField {
  return {
    type: 'point',
    label,
    schema: z
      .strictObject({ latitude: z.number().min(-90).max(90), longitude: z.number().min(-180).max(180) })
      .nullable(),
    empty: null,
    fault: nothing,
  }
}

export function list<F extends Fields>(
  label: string,
  one: string,
  max: number,
  of: F,
  { wanted }: Options = {},
): ListField<F> {
  return {
    type: 'list',
    label,
    one,
    max,
    of,
    schema: z.array(shapeOf(of)).max(max, `There are at most ${String(max)}.`),
    empty: [],
    fault: (rows) => (rows.length === 0 ? (wanted ?? null) : null),
  }
}

/**
 * Rows of several kinds.
 *
 * @param kinds the fields of each kind
 * @param row the schema of a row, with all that it has
 */
export function kinds<R extends { readonly kind: string }>(
  label: string,
  one: string,
  max: number,
  kinds: Readonly<Record<R['kind'], Fields>>,
  row: z.ZodType<R>,
  { wanted }: Options = {},
): KindsField<R> {
  return {
    type: 'kinds',
    label,
    one,
    max,
    kinds,
    schema: z.array(row).max(max, `There are at most ${String(max)}.`),
    empty: [],
    fault: (rows) => (rows.length === 0 ? (wanted ?? null) : null),
  }
}

/** A number between two bounds, both included. */
export function number(
  label: string,
  { help, wanted, least, most, isWhole = true }: Options & Bounds,
): NumberField {
  const bounds = `Give a number from ${least.toLocaleString('en-GB')} to ${most.toLocaleString('en-GB')}.`
  const inBounds = z.number(bounds).min(least, bounds).max(most, bounds)
  return {
    type: 'number',
    label,
    ...(help === undefined ? {} : { help }),
    schema: (isWhole ? inBounds.int('Give a whole number.') : inBounds).nullable(),
    empty: null,
    fault: (value) => (value === null ? (wanted ?? null) : null),
  }
}
interface Bounds {
  readonly least: number
  readonly most: number
  readonly isWhole?: boolean
}

export function day(label: string, { help }: Options = {}): DayField {
  return {
    type: 'day',
    label,
    ...(help === undefined ? {} : { help }),
    schema: z.union([calendarDay, z.literal('')]),
    empty: '',
    fault: nothing,
  }
}

export function pageChoice(label: string): PageField {
  return { type: 'page', label, schema: z.int().positive().nullable(), empty: null, fault: nothing }
}

/** The key of a row: small letters and digits. */
export const rowKey = z
  .string()
  .regex(/^[a-z0-9]{1,16}$/, 'A key has up to 16 of the small letters and digits.')
export const key = (): KeyField => ({ type: 'key', label: '', schema: rowKey, empty: '', fault: nothing })

/** The schema of what fields hold. */
export function shapeOf<F extends Fields>(fields: F): z.ZodType<ValuesOf<F>> {
  const shape = Object.fromEntries(Object.entries(fields).map(([name, { schema }]) => [name, schema]))
  // Made field by field of the schemas whose outputs the type names.
  return z.strictObject(shape) as unknown as z.ZodType<ValuesOf<F>>
}

/** Fields with nothing entered. */
export function emptyOf<F extends Fields>(fields: F): ValuesOf<F> {
  const values = Object.entries(fields as unknown as Readonly<Record<string, Field>>).map(
    ([name, { empty }]) => [name, empty],
  )
  return Object.fromEntries(values) as ValuesOf<F>
}

/**
 * The schema of rows of several kinds.
 *
 * @param kinds the fields of each kind
 * @param common what every row has beside them, and beside its kind
 */
export function kindUnion<R extends { readonly kind: string }>(
  kinds: Readonly<Record<R['kind'], Fields>>,
  common: z.ZodRawShape,
): z.ZodType<R> {
  const [first, ...more] = Object.entries<Fields>(kinds).map(([kind, fields]) =>
    (shapeOf(fields) as unknown as z.ZodObject).extend({ ...common, kind: z.literal(kind) }),
  )
  // Made kind by kind of the fields that the type names.
  return z.discriminatedUnion('kind', [first as z.ZodObject, ...more]) as unknown as z.ZodType<R>
}
