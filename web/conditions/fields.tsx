import { country } from '@flimbo/core/formats'
import { Autocomplete, TextField } from '@mui/material'
import { scansApi, type KnownPlace } from '@flimbo/core/scans'
import { useDeferredValue, useState } from 'react'
import { useAnswer } from '../api/index.ts'

/** Options with the typed text in their name, those that begin with it first. */
function likeliest(
  options: string[],
  { inputValue, getOptionLabel }: { inputValue: string; getOptionLabel: (option: string) => string },
): string[] {
  const wanted = inputValue.trim().toLowerCase()
  const named = options
    .map((option) => ({ option, at: getOptionLabel(option).toLowerCase().indexOf(wanted) }))
    .filter(({ at }) => at >= 0)
  return [...named.filter(({ at }) => at === 0), ...named.filter(({ at }) => at > 0)].map(
    ({ option }) => option,
  )
}

/** A list that is the same array as long as it holds the same: a field given a new one forgets what is being typed. */
function useSameList<T>(values: readonly T[], keyOf: (value: T) => string): T[] {
  const [list, setList] = useState(() => [...values])
  if (values.length !== list.length || values.some((value, i) => keyOf(value) !== keyOf(list[i] ?? value)))
    setList([...values])
  return list
}
const itself = (value: string) => value

/** Several values out of a list, typed ones too where `free`. */
export function Several({
  label,
  values,
  options,
  nameOf = (value) => value,
  free = false,
  change,
}: {
  label: string
  values: readonly string[]
  options: readonly string[]
  nameOf?: (value: string) => string
  free?: boolean
  change: (values: string[]) => void
}) {
  const chosenNow = useSameList(values, itself)
  return (
    <Autocomplete<string, true, false, boolean>
      multiple
      size="small"
      freeSolo={free}
      options={[...options]}
      value={chosenNow}
      getOptionLabel={nameOf}
      disableCloseOnSelect={!free}
      autoHighlight={!free}
      filterOptions={likeliest}
      onChange={(_event, chosen) => {
        change([...new Set(chosen.map((each) => each.trim()).filter((each) => each !== ''))])
      }}
      // What was typed and left counts as chosen.
      onBlur={(event) => {
        const typed = (event.target as HTMLInputElement).value.trim()
        if (free && typed !== '') change([...new Set([...values, typed])])
      }}
      renderInput={(params) => <TextField {...params} label={label} />}
    />
  )
}

const placeName = ({ city, region, country: of }: KnownPlace) =>
  [city, region, country(of)].filter((part) => part !== '').join(', ')
const regionName = ({ region, country: of }: KnownPlace) => `${region}, ${country(of)}`
const keyOf = ({ country: of, region, city }: KnownPlace) => `${of}/${region}/${city}`

function useKnown(typed: string, kind: 'city' | 'region') {
  const asked = useDeferredValue(typed.trim())
  const found = useAnswer(scansApi.places, { query: { q: asked, kind } }, { enabled: asked.length > 1 })
  return { options: asked.length > 1 ? (found.data?.rows ?? []) : [], isReading: found.isFetching }
}

function hint(typed: string, isReading: boolean): string {
  if (typed.trim().length < 2) return 'Type the first letters of its name'
  return isReading ? 'Searching all cities; the first time takes a few seconds' : 'No place found'
}

/** Cities or regions that scans really come from. */
export function SeveralPlaces({
  label,
  kind,
  values,
  change,
}: {
  label: string
  kind: 'city' | 'region'
  values: readonly KnownPlace[]
  change: (values: KnownPlace[]) => void
}) {
  const [typed, setTyped] = useState('')
  const { options, isReading } = useKnown(typed, kind)
  const chosenNow = useSameList(values, keyOf)
  return (
    <Autocomplete<KnownPlace, true>
      multiple
      size="small"
      options={options}
      value={chosenNow}
      inputValue={typed}
      filterOptions={(all) => all}
      autoHighlight
      loading={isReading}
      onInputChange={(_event, value) => {
        setTyped(value)
      }}
      onChange={(_event, chosen) => {
        change(chosen)
      }}
      getOptionLabel={kind === 'city' ? placeName : regionName}
      getOptionKey={keyOf}
      isOptionEqualToValue={(a, b) => keyOf(a) === keyOf(b)}
      noOptionsText={hint(typed, isReading)}
      renderInput={(params) => <TextField {...params} label={label} />}
    />
  )
}

/** One city, or none. */
export function OnePlace({
  label,
  value,
  change,
}: {
  label: string
  value: KnownPlace | null
  change: (value: KnownPlace | null) => void
}) {
  const [typed, setTyped] = useState('')
  const { options, isReading } = useKnown(typed, 'city')
  return (
    <Autocomplete<KnownPlace>
      size="small"
      options={options}
      value={value}
      inputValue={typed}
      filterOptions={(all) => all}
      autoHighlight
      loading={isReading}
      onInputChange={(_event, next) => {
        setTyped(next)
      }}
      onChange={(_event, chosen) => {
        change(chosen)
      }}
      getOptionLabel={placeName}
      getOptionKey={keyOf}
      isOptionEqualToValue={(a, b) => keyOf(a) === keyOf(b)}
      noOptionsText={hint(typed, isReading)}
      renderInput={(params) => <TextField {...params} label={label} />}
    />
  )
}

/** A number that is typed; what is none is handed on as NaN, so that the contract says what is wrong. */
export function NumberField({
  label,
  value,
  change,
  width = 110,
  step,
}: {
  label: string
  value: number | null
  change: (value: number | null) => void
  width?: number
  step?: number
}) {
  const [typed, setTyped] = useState<string | null>(null)
  return (
    <TextField
      size="small"
      label={label}
      type="number"
      value={typed ?? (value === null || Number.isNaN(value) ? '' : String(value))}
      sx={{ width }}
      slotProps={{ htmlInput: { step: step ?? 'any' }, inputLabel: { shrink: true } }}
      onChange={({ target }) => {
        setTyped(target.value)
        change(target.value === '' ? null : Number(target.value))
      }}
      onBlur={() => {
        setTyped(null)
      }}
    />
  )
}

const ZONES = Intl.supportedValuesOf('timeZone')

/** A time zone, found by typing a part of its name. */
export function ZoneField({ value, change }: { value: string; change: (value: string) => void }) {
  return (
    <Autocomplete<string, false, true>
      disableClearable
      size="small"
      options={ZONES}
      value={value}
      onChange={(_event, zone) => {
        change(zone)
      }}
      renderInput={(params) => <TextField {...params} label="Time zone" />}
      sx={{ minWidth: 200 }}
    />
  )
}
