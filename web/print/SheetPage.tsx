import { Box, Button, Stack, Typography } from '@mui/material'
import { number, quantity } from '@flimbo/core/formats'
import { fileNameFault } from '@flimbo/core/plan'
import {
  CAPTIONS_MAX,
  DEFAULT_SHEET,
  printApi,
  sheetCount,
  sheetFaults,
  type SheetLayout,
} from '@flimbo/core/print'
import { useState } from 'react'
import { useFile } from '../jobs/index.ts'
import { Choice, NumberField, Part, Row, TextCell } from './rows.tsx'
import { SheetPreview } from './SheetPreview.tsx'
import { piecesOf, type Scope, type Subject } from './subject.ts'
import type { Contacts } from './useContacts.ts'

const SIZES = [
  { value: 'A4', words: 'A4' },
  { value: 'A3', words: 'A3' },
  { value: 'SRA3', words: 'SRA3' },
  { value: 'Letter', words: 'Letter' },
  { value: 'own', words: 'Own size' },
] as const

/** Labels, cards and coasters on sheets; and the proof sheet that somebody signs. */
export function SheetPage({ subject, contacts }: { subject: Subject; contacts: Contacts }) {
  const [layout, setLayout] = useState<SheetLayout>(DEFAULT_SHEET)
  const [scope, setScope] = useState<Scope>('all')
  const [colours, setColours] = useState<'rgb' | 'cmyk'>('cmyk')
  const file = useFile(printApi.sheets)
  const set = (more: Partial<SheetLayout>) => {
    setLayout((old) => ({ ...old, ...more }))
  }
  const faults = [
    ...sheetFaults(layout).map(({ message }) => message),
    ...layout.captions.flatMap((text) => (text.trim() === '' ? [] : (fileNameFault(text) ?? []))),
  ]
  const pieces = scope === 'one' ? 1 : (contacts.total ?? 0)
  const which = piecesOf(subject, scope, contacts)
  const mmField = (label: string, name: keyof SheetLayout & `${string}Mm`, min: number, unit: string) => (
    <NumberField
      label={label}
      value={layout[name]}
      min={min}
      max={5000}
      unit={unit}
      width={56}
      set={(value) => {
        if (value !== null) set({ [name]: value })
      }}
    />
  )
  const countField = (
    label: string,
    name: 'columns' | 'rows' | 'copies' | 'start',
    max: number,
    unit: string,
  ) => (
    <NumberField
      label={label}
      value={layout[name]}
      min={1}
      max={max}
      unit={unit}
      width={56}
      set={(value) => {
        if (value !== null) set({ [name]: Math.round(value) })
      }}
    />
  )
  return (
    <>
      <Part title="Sheets">
        <Row name="Pieces">
          <Choice
            label="Pieces on the sheets"
            value={scope}
            choices={[
              { value: 'all', words: `all ${number(contacts.total ?? 0)} shown` },
              { value: 'one', words: 'this piece' },
            ]}
            set={setScope}
          />
          {countField('Copies of each piece', 'copies', 10_000, 'of each')}
        </Row>
        <Row name="Sheet">
          <Choice
            label="Size of the sheet"
            value={layout.size}
            choices={SIZES}
            set={(size) => {
              set({ size })
            }}
          />
          {layout.size !== 'own' && (
            <Choice
              label="How the sheet lies"
              value={layout.turned}
              choices={[
                { value: 'upright', words: 'upright' },
                { value: 'lying', words: 'lying' },
              ]}
              set={(turned) => {
                set({ turned })
              }}
            />
          )}
        </Row>
        {layout.size === 'own' && (
          <Row name="Width, height">
            {mmField('Width of the sheet', 'widthMm', 20, '×')}
            {mmField('Height of the sheet', 'heightMm', 20, 'mm')}
          </Row>
        )}
        <Row name="Cells">
          {countField('Columns', 'columns', 100, '×')}
          {countField('Rows', 'rows', 100, 'columns × rows')}
        </Row>
        <Row name="Size of a cell">
          {mmField('Width of a cell', 'cellWidthMm', 5, '×')}
          {mmField('Height of a cell', 'cellHeightMm', 5, 'mm')}
        </Row>
        <Row name="Margins">
          {mmField('Left margin', 'leftMm', 0, 'left')}
          {mmField('Top margin', 'topMm', 0, 'mm top')}
        </Row>
        <Row name="Gaps">
          {mmField('Gap between columns', 'gapXMm', 0, 'across')}
          {mmField('Gap between rows', 'gapYMm', 0, 'mm down')}
        </Row>
        <Row name="Symbols">
          <Choice
            label="Size of the symbols"
            value={layout.fit}
            choices={[
              { value: 'cell', words: 'fitted to the cell' },
              { value: 'planned', words: 'as large as planned' },
            ]}
            set={(fit) => {
              set({ fit })
            }}
          />
        </Row>
        {Array.from({ length: CAPTIONS_MAX }, (_each, i) => (
          <Row key={i} name={i === 0 ? 'Captions' : ''}>
            <TextCell
              label={`Caption ${String(i + 1)}`}
              value={layout.captions[i] ?? ''}
              max={200}
              placeholder={['{name}', '{place}', '{link}'][i] ?? ''}
              set={(text) => {
                const captions = Array.from({ length: CAPTIONS_MAX }, (_other, j) =>
                  j === i ? text : (layout.captions[j] ?? ''),
                )
                while (captions.at(-1) === '') captions.pop()
                set({ captions })
              }}
            />
          </Row>
        ))}
        <Row name="Marks">
          <Choice
            label="Marks"
            value={layout.marks}
            choices={[
              { value: 'none', words: 'none' },
              { value: 'cut', words: 'cut marks' },
              { value: 'cut-and-registration', words: 'cut and registration marks' },
            ]}
            set={(marks) => {
              set({ marks })
            }}
          />
          <Choice
            label="Colours of the sheets"
            value={colours}
            choices={[
              { value: 'cmyk', words: 'CMYK' },
              { value: 'rgb', words: 'RGB' },
            ]}
            set={setColours}
          />
        </Row>
        <Row name="Begin at">{countField('Begin at cell', 'start', 10_000, 'for half-used sheets')}</Row>
        <SheetPreview
          layout={layout}
          pieces={pieces}
          begin={(start) => {
            set({ start })
          }}
        />
        {faults.map((fault) => (
          <Typography key={fault} variant="body2" color="error" role="alert">
            {fault}
          </Typography>
        ))}
        <Stack direction="row" sx={{ gap: 1, pt: 1, alignItems: 'center' }}>
          <Button
            variant="contained"
            disabled={faults.length > 0 || pieces === 0}
            onClick={() => {
              void file.order({ body: { what: 'sheets', ...which, layout, colours } })
            }}
          >
            PDF of {quantity(faults.length > 0 ? 0 : sheetCount(layout, pieces), 'sheet')}
          </Button>
        </Stack>
        {file.fault !== null && (
          <Typography variant="body2" color="error" role="alert">
            {file.fault}
          </Typography>
        )}
      </Part>
      <Part title="Proof sheet">
        <Typography variant="body2" sx={{ py: 0.75 }}>
          Each piece with its symbol at size, its short link, where it leads, its grade, and a line for a
          signature.
        </Typography>
        <Box>
          <Button
            variant="outlined"
            disabled={pieces === 0}
            onClick={() => {
              void file.order({ body: { what: 'proof-sheet', ...which } })
            }}
          >
            Proof sheet of {quantity(pieces, 'piece')}
          </Button>
        </Box>
      </Part>
    </>
  )
}
