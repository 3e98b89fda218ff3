import { Autocomplete, createFilterOptions, TextField } from '@mui/material'
import type { PageSummary } from '@flimbo/core/pages'
import { usePages } from './usePages.ts'

/** There may be thousands: those that fit what was typed, and no more than can be looked at. */
const someOf = createFilterOptions<PageSummary>({ limit: 100 })

/** Another page that follows. */
export function PagePick({
  label,
  value,
  fault,
  change,
}: {
  readonly label: string
  readonly value: number | null
  readonly fault: string | undefined
  readonly change: (pageId: number | null) => void
}) {
  const pages = usePages()
  return (
    <Autocomplete<PageSummary>
      size="small"
      options={[...pages]}
      value={pages.find(({ id }) => id === value) ?? null}
      autoHighlight
      filterOptions={someOf}
      getOptionKey={({ id }) => id}
      getOptionLabel={({ name }) => name}
      isOptionEqualToValue={(a, b) => a.id === b.id}
      onChange={(_event, chosen) => {
        change(chosen?.id ?? null)
      }}
      renderInput={(params) => (
        <TextField {...params} label={label} error={fault !== undefined} helperText={fault} />
      )}
    />
  )
}
