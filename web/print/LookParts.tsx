import { Button, Typography } from '@mui/material'
import {
  contrastRatio,
  PLAIN_LOOK,
  type Look,
  type ModuleShape,
  type Paint,
  type PatternShape,
  type Tint,
} from '@flimbo/core/symbol'
import { FilePick } from './FilePick.tsx'
import { LogoRows } from './LogoRows.tsx'
import { PaintRows } from './PaintRows.tsx'
import { Choice, NumberField, Part, Row } from './rows.tsx'
import { SurroundRows } from './SurroundRows.tsx'
import { TintField } from './TintField.tsx'

const SHAPES: readonly { value: ModuleShape; words: string }[] = [
  { value: 'square', words: 'Square' },
  { value: 'rounded', words: 'Rounded' },
  { value: 'dot', words: 'Dots' },
  { value: 'upright', words: 'Upright bars' },
  { value: 'lying', words: 'Lying bars' },
  { value: 'diamond', words: 'Diamonds' },
  { value: 'flowing', words: 'Flowing together' },
]
const PATTERNS: readonly { value: PatternShape; words: string }[] = [
  { value: 'square', words: 'square' },
  { value: 'rounded', words: 'rounded' },
  { value: 'circle', words: 'circle' },
]
/** Shapes that a module's size means something for. */
const SIZED: readonly ModuleShape[] = ['dot', 'upright', 'lying', 'diamond', 'rounded']

export interface LookProps {
  readonly look: Look
  /** Changes the look; `what` names what of it. */
  readonly set: (look: Partial<Look>, what: string) => void
}

/** The look of a piece, line by line. */
export function LookParts({ look, set }: LookProps) {
  return (
    <>
      <Part title="Ink and ground" aside={<Contrast look={look} />}>
        <PaintRows
          name="Ink"
          paint={look.ink}
          fallback={PLAIN_LOOK.ink}
          mayBeNone={false}
          set={(ink) => {
            if (ink) set({ ink }, 'ink')
          }}
        />
        <GroundRows look={look} set={set} />
      </Part>
      <Part title="Modules">
        <Row name="Shape">
          <Choice
            label="Shape of the modules"
            value={look.modules.shape}
            choices={SHAPES}
            set={(shape) => {
              const size = SIZED.includes(shape) ? look.modules.size : 1
              set({ modules: { shape, size } }, 'modules')
            }}
          />
          {SIZED.includes(look.modules.shape) && (
            <NumberField
              label="Size of the modules"
              value={Math.round(look.modules.size * 100)}
              min={30}
              max={100}
              step={5}
              unit="%"
              width={48}
              set={(size) => {
                set({ modules: { ...look.modules, size: (size ?? 100) / 100 } }, 'size of modules')
              }}
            />
          )}
        </Row>
        <PatternRow
          name="Finder ring"
          shape={look.finder.ring}
          tint={look.finder.ringTint}
          own={look.ink}
          set={(ring, ringTint) => {
            set({ finder: { ...look.finder, ring, ringTint } }, 'finder ring')
          }}
        />
        <PatternRow
          name="Finder centre"
          shape={look.finder.centre}
          tint={look.finder.centreTint}
          own={look.ink}
          set={(centre, centreTint) => {
            set({ finder: { ...look.finder, centre, centreTint } }, 'finder centre')
          }}
        />
        <Row name="Alignment">
          <Choice
            label="Shape of the alignment patterns"
            value={look.alignment}
            choices={[{ value: 'modules', words: 'like the modules' }, ...PATTERNS]}
            set={(alignment) => {
              set({ alignment }, 'alignment')
            }}
          />
        </Row>
        <Row name="Quiet zone">
          <NumberField
            label="Quiet zone"
            value={look.quietZone}
            min={4}
            max={12}
            unit="modules on each side"
            width={48}
            set={(quietZone) => {
              set({ quietZone: Math.round(quietZone ?? 4) }, 'quiet zone')
            }}
          />
        </Row>
      </Part>
      <LogoRows look={look} set={set} />
      <SurroundRows look={look} set={set} />
    </>
  )
}

/** What the symbol stands on: a paint, a picture, or nothing. */
function GroundRows({ look: { ground }, set }: LookProps) {
  const picture = ground?.kind === 'picture' ? ground.file : null
  return (
    <>
      {picture === null && (
        <PaintRows
          name="Ground"
          paint={ground && ground.kind !== 'picture' ? ground : null}
          fallback={PLAIN_LOOK.ground as Paint}
          mayBeNone
          set={(paint) => {
            set({ ground: paint }, 'ground')
          }}
        />
      )}
      <Row name={picture === null ? '' : 'Ground'}>
        <FilePick
          label="Picture as the ground"
          sum={picture}
          take={(file) => {
            set({ ground: { kind: 'picture', file } }, 'ground')
          }}
        />
        {picture !== null && (
          <Button
            size="small"
            color="inherit"
            onClick={() => {
              set({ ground: PLAIN_LOOK.ground }, 'ground')
            }}
          >
            Remove picture
          </Button>
        )}
      </Row>
    </>
  )
}

/** How much ink and ground differ: the least of what meets. */
function Contrast({ look: { ink, ground } }: { look: Look }) {
  const tints = (paint: Paint) => (paint.kind === 'solid' ? [paint.tint] : [paint.from, paint.to])
  if (ground?.kind === 'picture')
    return (
      <Typography variant="body2" color="textSecondary">
        On a picture: see preflight
      </Typography>
    )
  const grounds = ground ? tints(ground) : [{ rgb: '#ffffff' }]
  const least = Math.min(...tints(ink).flatMap((a) => grounds.map((b) => contrastRatio(a.rgb, b.rgb))))
  return (
    <Typography variant="body2" color={least < 4.5 ? 'warning' : 'textSecondary'}>
      Contrast {least.toFixed(1)} : 1
    </Typography>
  )
}

const firstTint = (paint: Paint): Tint => (paint.kind === 'solid' ? paint.tint : paint.from)

function PatternRow({
  name,
  shape,
  tint,
  own,
  set,
}: {
  name: string
  shape: PatternShape
  tint: Tint | null
  own: Paint
  set: (shape: PatternShape, tint: Tint | null) => void
}) {
  return (
    <Row name={name}>
      <Choice
        label={`Shape of the ${name.toLowerCase()}`}
        value={shape}
        choices={PATTERNS}
        set={(next) => {
          set(next, tint)
        }}
      />
      <Choice
        label={`Ink of the ${name.toLowerCase()}`}
        value={tint ? 'own' : 'same'}
        choices={[
          { value: 'same', words: 'same ink' },
          { value: 'own', words: 'own ink' },
        ]}
        set={(next) => {
          set(shape, next === 'own' ? firstTint(own) : null)
        }}
      />
      {tint && (
        <TintField
          label={`Colour of the ${name.toLowerCase()}`}
          tint={tint}
          set={(next) => {
            set(shape, next)
          }}
        />
      )}
    </Row>
  )
}
