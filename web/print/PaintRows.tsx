import type { Paint, Tint } from '@flimbo/core/symbol'
import { Choice, NumberField, Row } from './rows.tsx'
import { TintField } from './TintField.tsx'

type Kind = Paint['kind'] | 'none'

const KINDS = [
  { value: 'solid', words: 'One colour' },
  { value: 'linear', words: 'From side to side' },
  { value: 'radial', words: 'From the middle' },
] as const
const WITH_NONE = [...KINDS, { value: 'none', words: 'None' }] as const

const first = (paint: Paint): Tint => (paint.kind === 'solid' ? paint.tint : paint.from)
const second = (paint: Paint): Tint => (paint.kind === 'solid' ? paint.tint : paint.to)

function withKind(paint: Paint, kind: Paint['kind']): Paint {
  const [from, to] = [first(paint), second(paint)]
  switch (kind) {
    case 'solid':
      return { kind, tint: from }
    case 'linear':
      return { kind, from, to, angle: 0 }
    case 'radial':
      return { kind, from, to }
  }
}

interface Props {
  readonly name: string
  readonly paint: Paint | null
  /** What it is while there is none. */
  readonly fallback: Paint
  readonly mayBeNone: boolean
  readonly set: (paint: Paint | null) => void
}

/** What something is filled with: one colour, two that run into each other, or none. */
export function PaintRows({ name, paint, fallback, mayBeNone, set }: Props) {
  const kind: Kind = paint?.kind ?? 'none'
  return (
    <>
      <Row name={name}>
        <Choice
          label={name}
          value={kind}
          choices={mayBeNone ? WITH_NONE : KINDS}
          set={(next) => {
            set(next === 'none' ? null : withKind(paint ?? fallback, next))
          }}
        />
        {paint?.kind === 'solid' && (
          <TintField
            label={`Colour of the ${name.toLowerCase()}`}
            tint={paint.tint}
            set={(tint) => {
              set({ ...paint, tint })
            }}
          />
        )}
      </Row>
      {paint && paint.kind !== 'solid' && (
        <Row name="">
          <TintField
            label={`First colour of the ${name.toLowerCase()}`}
            tint={paint.from}
            set={(from) => {
              set({ ...paint, from })
            }}
          />
          <TintField
            label={`Second colour of the ${name.toLowerCase()}`}
            tint={paint.to}
            set={(to) => {
              set({ ...paint, to })
            }}
          />
        </Row>
      )}
      {paint?.kind === 'linear' && (
        <Row name="Angle">
          <NumberField
            label={`Angle of the ${name.toLowerCase()}`}
            value={paint.angle}
            min={0}
            max={360}
            step={15}
            unit="°"
            set={(angle) => {
              set({ ...paint, angle: angle ?? 0 })
            }}
          />
        </Row>
      )}
    </>
  )
}
