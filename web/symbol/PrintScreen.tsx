import { Autocomplete, Box, Button, MenuItem, Stack, TextField, Typography } from '@mui/material'
import { codesApi, contentOf, SIZE_MM, type Code } from '@flimbo/core/codes'
import {
  encode,
  densityGain,
  gainPhrase,
  LEVELS,
  QUIET_ZONE,
  RasterTooLarge,
  rasterPlan,
  symbolScene,
  RECOVERY,
  type Level,
} from '@flimbo/core/symbol'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { hrefOf, useAnswer, useChange } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { number } from '@flimbo/core/formats'
import { Copyable, Empty, Fact, Facts, PrintWarning, Sheet, Trouble } from '../ui/index.ts'
import { Ruler } from './Ruler.tsx'
import { SymbolPicture } from './SymbolPicture.tsx'

const OFFERED = 500
const RESOLUTIONS = [72, 150, 300, 600, 1200]

/** A symbol at its printed size, what is known of it, and its files. */
export function PrintScreen() {
  const campaign = useCampaign()
  const [address, setAddress] = useSearchParams()
  const codes = useAnswer(codesApi.list, {
    query: { campaignId: campaign.id, pageSize: OFFERED, sort: 'name' },
  })
  const rows = codes.data?.rows.filter((row) => row.state !== 'deleted') ?? []
  const code = rows.find((row) => String(row.id) === address.get('code')) ?? rows[0]
  if (codes.isError)
    return (
      <Trouble
        error={codes.error}
        retry={() => {
          void codes.refetch()
        }}
      />
    )
  return (
    <Box sx={{ p: 2, width: '100%', maxWidth: 1440, mx: 'auto' }}>
      <Stack direction="row" sx={{ gap: 2, mb: 2, alignItems: 'center' }}>
        <Typography variant="h1" sx={{ flex: 1 }}>
          Print
        </Typography>
        {code && (
          <Autocomplete
            size="small"
            options={rows}
            value={code}
            disableClearable
            sx={{ width: 360 }}
            getOptionLabel={(row) => row.name}
            getOptionKey={(row) => row.id}
            isOptionEqualToValue={(a, b) => a.id === b.id}
            onChange={(_event, row) => {
              setAddress({ code: String(row.id) }, { replace: true })
            }}
            renderInput={(params) => <TextField {...params} label="Piece" />}
          />
        )}
      </Stack>
      {codes.data && !code && (
        <Sheet>
          <Empty
            title="Nothing to print yet"
            text="Symbols come with the pieces of the plan."
            action={
              <Button variant="contained" component={Link} to="../plan?new">
                New piece
              </Button>
            }
          />
        </Sheet>
      )}
      {code && (
        <Stack spacing={2}>
          <PrintWarning origin={code.origin} />
          <Proof key={code.id} code={code} />
        </Stack>
      )}
    </Box>
  )
}

interface Settings {
  level: Level
  mm: string
  dpi: number
}

function Proof({ code }: { code: Code }) {
  const [settings, setSettings] = useState<Settings>({ level: code.level, mm: String(code.sizeMm), dpi: 300 })
  const save = useChange(codesApi.change)
  const { level, dpi } = settings
  const wanted = Number(settings.mm.replace(',', '.'))
  const sized = wanted >= SIZE_MM.min && wanted <= SIZE_MM.max
  const mm = sized ? wanted : code.sizeMm
  const query = { level, mm }
  const pixels = pixelsOf(code, level, mm, dpi)
  const changed = level !== code.level || (sized && wanted !== code.sizeMm)

  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) 420px', gap: 2, alignItems: 'start' }}>
      <Sheet
        title="Proof"
        aside={
          <Typography variant="body2" color="textSecondary">
            {number(mm)} × {number(mm)} mm, quiet zone included
          </Typography>
        }
        pad={false}
      >
        <Ruler mm={mm}>
          <SymbolPicture
            origin={code.origin}
            slug={code.slug}
            level={level}
            size="100%"
            label={`Symbol of ${code.name} at ${String(mm)} mm`}
          />
        </Ruler>
      </Sheet>
      <Stack spacing={2}>
        <Sheet title="The symbol">
          <SymbolFacts code={code} level={level} mm={mm} />
        </Sheet>
        <Sheet title="Files">
          <Stack spacing={2}>
            <Stack direction="row" spacing={1.5}>
              <TextField
                select
                size="small"
                label="Level"
                value={level}
                onChange={(event) => {
                  setSettings({ ...settings, level: event.target.value as Level })
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
                error={!sized}
                sx={{ width: 110 }}
                onChange={(event) => {
                  setSettings({ ...settings, mm: event.target.value })
                }}
                slotProps={{ htmlInput: { inputMode: 'decimal' } }}
              />
              <TextField
                select
                size="small"
                label="dpi"
                value={dpi}
                onChange={(event) => {
                  setSettings({ ...settings, dpi: Number(event.target.value) })
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
            {!sized && (
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
              {changed && (
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
        </Sheet>
      </Stack>
    </Box>
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

function SymbolFacts({ code, level, mm }: { code: Code; level: Level; mm: number }) {
  const link = contentOf(code)
  const symbol = encode(link, level)
  const modes = [...new Set(symbol.segments.map(({ mode }) => mode))].join(' and ')
  const module = mm / (symbol.side + 2 * QUIET_ZONE)
  return (
    <Facts>
      <Fact name="Carries">
        <Copyable value={link} label="what the symbol carries" />
      </Fact>
      <Fact name="Side">
        {symbol.side} × {symbol.side} modules (version {symbol.version})
      </Fact>
      <Fact name="Gain">{gainPhrase(densityGain(link, code.finalAddress, level))}</Fact>
      <Fact name="Level">
        {level}: about {Math.round(RECOVERY[level] * 100)} % may be lost
      </Fact>
      <Fact name="Mode">{modes}</Fact>
      <Fact name="Module">{module.toFixed(2)} mm</Fact>
      <Fact name="Quiet zone">
        {QUIET_ZONE} modules, {(QUIET_ZONE * module).toFixed(1)} mm on each side
      </Fact>
      <Fact name="Reads from">about {number(Math.round(mm))} cm away and nearer: ten times its side</Fact>
    </Facts>
  )
}
