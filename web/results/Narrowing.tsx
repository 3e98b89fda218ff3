import { Autocomplete, Button, Chip, MenuItem, Stack, TextField } from '@mui/material'
import { filtersInWords, keyLabel } from '@flimbo/core/charts'
import {
  DIMENSION_NAMES,
  DIMENSIONS,
  isOfKind,
  toggleKey,
  withoutDimension,
  type Dimension,
  type Filters,
} from '@flimbo/core/dimensions'
import { number } from '@flimbo/core/formats'
import { resultsApi, ROWS_MAX } from '@flimbo/core/results'
import { useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { PanelButton } from '../ui/index.ts'
import { useKeyNames } from './useKeyNames.ts'
import type { AskedResults } from './useResults.ts'

/** Pieces of time are chosen on the chart, and by the days. */
const OFFERED = DIMENSION_NAMES.filter((name) => !isOfKind(name, 'time'))

/** What the figures are narrowed to, and the way to narrow them more. */
export function Narrowing({ asked }: { asked: AskedResults }) {
  const { view, ask } = asked
  const names = useKeyNames(asked)
  const filters = filtersInWords(view.filters, names)
  return (
    <Stack direction="row" sx={{ gap: 1, mt: 1, flexWrap: 'wrap', alignItems: 'center' }}>
      {filters.map(({ dimension, text }) => (
        <Chip
          key={dimension}
          label={text}
          onDelete={() => {
            const { [dimension]: _gone, ...others } = view.filters
            ask({ filters: others })
          }}
        />
      ))}
      <PanelButton
        label={filters.length === 0 ? 'Narrow these figures' : 'Narrow more'}
        name="Narrow these figures"
        color="inherit"
        width={340}
      >
        {() => (
          <NarrowForm
            asked={asked}
            change={(next) => {
              ask({ filters: next })
            }}
          />
        )}
      </PanelButton>
      {filters.length > 1 && (
        <Button
          color="inherit"
          onClick={() => {
            ask({ filters: {} })
          }}
        >
          Show everything
        </Button>
      )}
    </Stack>
  )
}

function NarrowForm({ asked, change }: { asked: AskedResults; change: (filters: Filters) => void }) {
  const { of, from, to, view } = asked
  const [dimension, setDimension] = useState<Dimension>('medium')
  const chosen = view.filters[dimension] ?? []
  const { data } = useAnswer(resultsApi.ask, {
    body: {
      ...of,
      from,
      to,
      questions: [{ by: [dimension], filters: withoutDimension(view.filters, dimension), top: ROWS_MAX }],
    },
  })
  const [answer] = data?.answers ?? []
  const keys = (answer?.rows ?? []).map((row) => row.keys[0] ?? '')
  const scans = new Map((answer?.rows ?? []).map((row) => [row.keys[0] ?? '', row.scans]))
  return (
    <Stack sx={{ gap: 2 }}>
      <TextField
        select
        size="small"
        label="Narrow by"
        value={dimension}
        onChange={({ target }) => {
          setDimension(target.value as Dimension)
        }}
      >
        {OFFERED.map((name) => (
          <MenuItem key={name} value={name}>
            {DIMENSIONS[name].label}
          </MenuItem>
        ))}
      </TextField>
      <Autocomplete
        key={dimension}
        multiple
        disableCloseOnSelect
        size="small"
        options={[...new Set([...chosen, ...keys])]}
        value={chosen}
        loading={!data}
        getOptionLabel={(key) => keyLabel(dimension, key, answer?.names)}
        getOptionKey={(key) => key}
        renderOption={({ key: _key, ...props }, key) => (
          <li key={key} {...props}>
            {keyLabel(dimension, key, answer?.names)} ({number(scans.get(key) ?? 0)})
          </li>
        )}
        onChange={(_event, wanted) => {
          const others = withoutDimension(view.filters, dimension)
          change(wanted.reduce((all, key) => toggleKey(all, dimension, key), others))
        }}
        renderInput={(params) => (
          <TextField {...params} label={`${DIMENSIONS[dimension].label}, with its scans`} autoFocus />
        )}
      />
    </Stack>
  )
}
