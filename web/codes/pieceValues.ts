import { fileColumns } from '@flimbo/core/plan'
import { codeSet, wholePiece, type Code } from '@flimbo/core/codes'
import { destination as destinationContract } from '@flimbo/core/routing'

/** Fields of a form that hold figures and days as they are typed; the plan's own columns read and write them. */
export const TYPED = [
  'sizeMm',
  'viewingM',
  'latitude',
  'longitude',
  'printRun',
  'cost',
  'liveOn',
  'downOn',
] as const
type Typed = (typeof TYPED)[number]

const columns = new Map(fileColumns().map((column) => [column.id, column]))

/** What a typed text stands for: the value, or the text itself where it is none, so that the contract says what is wrong. */
function valueOf(field: Typed, text: string): unknown {
  if (text.trim() === '') return field === 'sizeMm' ? undefined : null
  const read = columns.get(field)?.read(text)
  return read?.ok ? read.value[field] : Number.NaN
}

export type TypedValues = Record<Typed, string>

/** The typed fields of a piece as the form shows them. */
export function typedValues(code: Code): TypedValues {
  return Object.fromEntries(
    TYPED.map((field) => [field, columns.get(field)?.write({ ...code, routeName: code.routeName }) ?? '']),
  ) as TypedValues
}

/** A form's values with its typed fields read. */
export function readTyped<V extends Partial<TypedValues>>(
  values: V,
): Omit<V, Typed> & Record<Typed, unknown> {
  return {
    ...values,
    ...Object.fromEntries(
      TYPED.filter((field) => values[field] !== undefined).map((field) => [
        field,
        valueOf(field, values[field] ?? ''),
      ]),
    ),
  } as never
}

/** What a form of a piece is checked by. */
export const pieceContract = codeSet.extend({ destination: destinationContract }).superRefine(wholePiece)
