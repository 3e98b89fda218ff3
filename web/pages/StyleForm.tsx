import { Box, FormControlLabel, Stack, Switch, TextField, Typography } from '@mui/material'
import type { StoredFile } from '@flimbo/core/files'
import {
  contrastOn,
  FACES,
  SCALES,
  SCHEMES,
  styleFaults,
  surfacesOf,
  type Ground,
  type PageStyle,
  type Palette,
} from '@flimbo/core/pages'
import { Pick } from '../conditions/index.ts'
import { ColourInput } from './ColourInput.tsx'
import { FileField } from './FileField.tsx'

const SCHEME_NAMES: Readonly<Record<PageStyle['scheme'], string>> = {
  light: 'Light',
  dark: 'Dark',
  both: 'Both, as the phone is set',
}
const FACE_NAMES: Readonly<Record<PageStyle['face'], string>> = {
  plain: 'Plain',
  serif: 'With serifs',
  rounded: 'Rounded',
  narrow: 'Narrow',
}
const SCALE_NAMES: Readonly<Record<PageStyle['scale'], string>> = {
  small: 'Small',
  medium: 'Medium',
  large: 'Large',
}
const GROUNDS = [
  ['solid', 'One colour'],
  ['gradient', 'Gradient'],
  ['picture', 'Picture'],
] as const
const CORNER_MAX = 28

/** Another kind of ground with the colours of the one before. */
function groundAs(kind: string, was: Ground): Ground {
  const colour = surfacesOf(was)[0] ?? '#FFFFFF'
  if (kind === 'gradient') return { kind: 'gradient', from: colour, upTo: colour, angle: 180 }
  if (kind === 'picture') return { kind: 'picture', file: '', sheet: colour }
  return { kind: 'solid', colour }
}

interface Props {
  readonly style: PageStyle
  readonly fileOf: (key: string) => StoredFile | undefined
  readonly learn: (file: StoredFile) => void
  readonly change: (style: PageStyle) => void
}

/** How pages look: colours by day and in the dark, letters and corners; what could not be read is said at once. */
export function StyleForm({ style, fileOf, learn, change }: Props) {
  const faults = styleFaults(style)
  const faultAt = (path: string) => faults.find((each) => each.path === path)?.sentence
  const palette = (name: 'light' | 'dark', title: string) => (
    <PaletteForm
      title={title}
      palette={style[name]}
      faultAt={(path) => faultAt(`${name}.${path}`)}
      fileOf={fileOf}
      learn={learn}
      change={(next) => {
        change({ ...style, [name]: next })
      }}
    />
  )
  return (
    <Stack sx={{ gap: 2 }}>
      <Pick
        label="Light or dark"
        value={style.scheme}
        choices={SCHEMES.map((each) => [each, SCHEME_NAMES[each]])}
        change={(scheme) => {
          change({ ...style, scheme: scheme as PageStyle['scheme'] })
        }}
      />
      {style.scheme !== 'dark' && palette('light', 'Light')}
      {style.scheme !== 'light' && palette('dark', 'Dark')}
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        <Pick
          label="Letters"
          value={style.face}
          choices={FACES.map((each) => [each, FACE_NAMES[each]])}
          change={(face) => {
            change({ ...style, face: face as PageStyle['face'] })
          }}
        />
        <Pick
          label="Size"
          value={style.scale}
          choices={SCALES.map((each) => [each, SCALE_NAMES[each]])}
          change={(scale) => {
            change({ ...style, scale: scale as PageStyle['scale'] })
          }}
        />
        <TextField
          size="small"
          type="number"
          label="Corners (px)"
          value={style.corner}
          sx={{ width: 120 }}
          slotProps={{ htmlInput: { min: 0, max: CORNER_MAX } }}
          onChange={({ target }) => {
            const corner = Math.round(Number(target.value))
            if (corner >= 0 && corner <= CORNER_MAX) change({ ...style, corner })
          }}
        />
      </Stack>
    </Stack>
  )
}

/** Cut, not rounded: 4.46 is not 4.5. */
const ratioText = (palette: Palette, of: 'ink' | 'accent') =>
  `${(Math.floor(contrastOn(palette.ground, palette[of]) * 10) / 10).toFixed(1)} : 1`

function PaletteForm({
  title,
  palette,
  faultAt,
  fileOf,
  learn,
  change,
}: {
  readonly title: string
  readonly palette: Palette
  readonly faultAt: (path: string) => string | undefined
  readonly fileOf: Props['fileOf']
  readonly learn: Props['learn']
  readonly change: (palette: Palette) => void
}) {
  const { ground } = palette
  const setGround = (next: Ground) => {
    change({ ...palette, ground: next })
  }
  return (
    <Box role="group" aria-label={title} sx={{ borderLeft: 2, borderColor: 'divider', pl: 1.5 }}>
      <Typography variant="h3" sx={{ mb: 1 }}>
        {title}
      </Typography>
      <Stack sx={{ gap: 1.5 }}>
        <Pick
          label="Ground"
          value={ground.kind}
          choices={GROUNDS}
          change={(kind) => {
            setGround(groundAs(kind, ground))
          }}
        />
        {ground.kind === 'solid' && (
          <ColourInput
            label="Colour"
            value={ground.colour}
            change={(colour) => {
              setGround({ ...ground, colour })
            }}
          />
        )}
        {ground.kind === 'gradient' && (
          <>
            <ColourInput
              label="From"
              value={ground.from}
              change={(from) => {
                setGround({ ...ground, from })
              }}
            />
            <ColourInput
              label="To"
              value={ground.upTo}
              change={(upTo) => {
                setGround({ ...ground, upTo })
              }}
            />
            <TextField
              size="small"
              type="number"
              label="Angle (degrees)"
              value={ground.angle}
              onChange={({ target }) => {
                const angle = Math.round(Number(target.value))
                if (angle >= 0 && angle < 360) setGround({ ...ground, angle })
              }}
            />
          </>
        )}
        {ground.kind === 'picture' && (
          <>
            <FileField
              label="Picture"
              takes="picture"
              file={fileOf(ground.file)}
              instead={undefined}
              fault={faultAt('ground.file')}
              take={(file) => {
                if (file) learn(file)
                setGround({ ...ground, file: file?.key ?? '' })
              }}
            />
            <ColourInput
              label="Sheet under the words"
              value={ground.sheet}
              change={(sheet) => {
                setGround({ ...ground, sheet })
              }}
            />
          </>
        )}
        <ColourInput
          label={`Text, contrast ${ratioText(palette, 'ink')}`}
          value={palette.ink}
          fault={faultAt('ink')}
          change={(ink) => {
            change({ ...palette, ink })
          }}
        />
        <ColourInput
          label={`Links and buttons, contrast ${ratioText(palette, 'accent')}`}
          value={palette.accent}
          fault={faultAt('accent')}
          change={(accent) => {
            change({ ...palette, accent })
          }}
        />
      </Stack>
    </Box>
  )
}

/** Whether pages that choose no style look like this one. */
export function DefaultSwitch({
  isOn,
  of,
  change,
}: {
  isOn: boolean
  of: string
  change: (isOn: boolean) => void
}) {
  return (
    <FormControlLabel
      sx={{ ml: 0 }}
      label={`Default for pages of ${of}, and for what the front door itself says`}
      slotProps={{ typography: { variant: 'body2' } }}
      control={
        <Switch
          size="small"
          checked={isOn}
          onChange={(_event, next) => {
            change(next)
          }}
        />
      }
    />
  )
}
