import { Autocomplete, createFilterOptions, TextField } from '@mui/material'

interface Named {
  readonly id: number
  readonly name: string
}

interface Props {
  readonly label: string
  readonly options: readonly Named[]
  readonly chosen: number | null
  readonly change: (id: number | null) => void
  readonly fault?: string | undefined
  readonly width?: number
  /** Takes what is typed, where whoever asks finds what fits it. */
  readonly typing?: (text: string) => void
}

/** There may be thousands: those that fit what was typed, and no more than can be looked at. */
const someOf = createFilterOptions<Named>({ limit: 100 })

/** One of several things by name. */
export function NamePick({ label, options, chosen, change, fault, width, typing }: Props) {
  return (
    <Autocomplete<Named>
      size="small"
      {...(width === undefined ? {} : { sx: { width } })}
      options={[...options]}
      value={options.find(({ id }) => id === chosen) ?? null}
      autoHighlight
      filterOptions={typing ? (all) => all : someOf}
      getOptionKey={({ id }) => id}
      getOptionLabel={({ name }) => name}
      isOptionEqualToValue={(a, b) => a.id === b.id}
      onChange={(_event, option) => {
        change(option?.id ?? null)
      }}
      onInputChange={(_event, text, reason) => {
        if (reason === 'input') typing?.(text)
        if (reason === 'clear') typing?.('')
      }}
      renderInput={(params) => (
        <TextField {...params} label={label} error={fault !== undefined} helperText={fault} />
      )}
    />
  )
}
