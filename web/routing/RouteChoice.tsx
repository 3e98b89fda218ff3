import { Autocomplete, createFilterOptions, TextField } from '@mui/material'
import type { RouteName } from '@flimbo/core/routing'

/** So many are shown at once; the rest are found by typing. */
const SHOWN_MAX = 100
const filterOptions = createFilterOptions<Option>({ limit: SHOWN_MAX })

interface Option {
  readonly id: number | null
  readonly label: string
}

interface Props {
  readonly label: string
  /** What stands for no route at all, first in the list. */
  readonly none: string
  readonly routes: readonly RouteName[]
  readonly value: number | null
  readonly change: (id: number | null) => void
  readonly fault?: string | undefined
}

/** One of a campaign's routes, however many there are, or none of them. */
export function RouteChoice({ label, none, routes, value, change, fault }: Props) {
  const options: Option[] = [
    { id: null, label: none },
    ...routes.map(({ id, name }) => ({ id, label: `where “${name}” leads` })),
  ]
  const chosen = options.find(({ id }) => id === value) ?? { id: null, label: none }
  return (
    <Autocomplete
      size="small"
      fullWidth
      disableClearable
      autoHighlight
      options={options}
      value={chosen}
      filterOptions={filterOptions}
      getOptionKey={({ id }) => id ?? 0}
      isOptionEqualToValue={(a, b) => a.id === b.id}
      onChange={(_event, { id }) => {
        change(id)
      }}
      renderInput={(params) => (
        <TextField {...params} label={label} error={fault !== undefined} helperText={fault} />
      )}
    />
  )
}
