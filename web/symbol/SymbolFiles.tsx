import { Button, MenuItem, Stack, TextField, Typography } from '@mui/material'
import { codesApi, contentOf, SIZE_MM, type Code } from '@flimbo/core/codes'
import { number } from '@flimbo/core/formats'
import {
  encode,
  LEVELS,
  RasterTooLarge,
  rasterPlan,
  RECOVERY,
  symbolScene,
  type Level,
} from '@flimbo/core/symbol'
import { hrefOf, useChange } from '../api/index.ts'
import { Trouble } from '../ui/index.ts'

const RESOLUTIONS = [72, 150, 300, 600, 1200]

export interface Settings {
  readonly level: Level
  /** As typed. */
  readonly mm: string
  readonly dpi: number
}

/** The side that was typed, in millimetres; null where no symbol is printed so. */
export function sideOf({ mm }: Settings): number | null {
  const side = Number(mm.replace(',', '.'))
  return side >= SIZE_MM.min && side <= SIZE_MM.max ? side : null
}

interface Props {
  readonly code: Code
  readonly settings: Settings
  readonly set: (settings: Settings) => void
}

/** A symbol as files, and how it is printed. */
export function SymbolFiles({ code, settings, set }: Props) {
  const save = useChange(codesApi.change)
  const { level, dpi } = settings
  const side = sideOf(settings)
  const mm = side ?? code.sizeMm
  const query = { level, mm }
  const pixels = pixelsOf(code, level, mm, dpi)
  const isChanged = level !== code.level || (side !== null && side !== code.sizeMm)
  return (
    <Stack spacing={2}>
      <Stack direction="row" spacing={1.5}>
        <TextField
          select
          size="small"
          label="Level"
          value={level}
          onChange={(event) => {
            set({ ...settings, level: event.target.value as Level })
          }}
          sx={{ flex: 1 }}
        >
          {LEVELS.map((each) => (
            <MenuItem key={each} value={each}>
              {each}: about {Math.round(RECOVERY[each] * 100)} %
            </MenuItem>
          ))}
        </TextField>
        <TextField
          size="small"
          label="Side in mm"
          value={settings.mm}
          error={side === null}
          sx={{ width: 110 }}
          onChange={(event) => {
            set({ ...settings, mm: event.target.value })
          }}
          slotProps={{ htmlInput: { inputMode: 'decimal' } }}
        />
        <TextField
          select
          size="small"
          label="dpi"
          value={dpi}
          onChange={(event) => {
            set({ ...settings, dpi: Number(event.target.value) })
          }}
          sx={{ width: 90 }}
        >
          {RESOLUTIONS.map((each) => (
            <MenuItem key={each} value={each}>
              {number(each)}
            </MenuItem>
          ))}
        </TextField>
      </Stack>
      {side === null && (
        <Typography variant="body2" color="error" role="alert">
          Give a side between {SIZE_MM.min} and {number(SIZE_MM.max)} mm.
        </Typography>
      )}
      <Stack direction="row" spacing={1}>
        <Button variant="contained" href={hrefOf(codesApi.svg, { params: { id: code.id }, query })}>
          Download SVG
        </Button>
        <Button
          variant="contained"
          disabled={pixels === null}
          href={hrefOf(codesApi.png, { params: { id: code.id }, query: { ...query, dpi } })}
        >
          Download PNG
        </Button>
        {isChanged && (
          <Button
            variant="outlined"
            disabled={save.isPending}
            onClick={() => {
              save.mutate({
                params: { id: code.id },
                body: { version: code.version, level, sizeMm: mm },
              })
            }}
          >
            Save for this piece
          </Button>
        )}
      </Stack>
      {save.isError && <Trouble error={save.error} />}
      <Typography variant="body2" color="textSecondary">
        {pixels === null
          ? 'That would be more pixels than Flimbo draws. Choose fewer dpi or take the SVG.'
          : `The PNG is ${number(pixels.width)} pixels a side, ${String(pixels.scale)} whole pixels a module, at ${number(Math.round(pixels.dpi))} dpi; its size in millimetres is stored in the file.`}
      </Typography>
    </Stack>
  )
}

function pixelsOf(code: Code, level: Level, mm: number, dpi: number) {
  try {
    return rasterPlan(symbolScene(encode(contentOf(code), level), mm, code.name), dpi)
  } catch (error) {
    if (error instanceof RasterTooLarge) return null
    throw error
  }
}
