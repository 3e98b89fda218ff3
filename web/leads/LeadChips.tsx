import { Chip } from '@mui/material'
import { day } from '@flimbo/core/formats'
import type { LeadView, Narrow, WhereName } from './filter.ts'

const WHERE: Readonly<Record<WhereName, string>> = {
  country: 'Country',
  region: 'Region',
  city: 'City',
  device: 'Device',
  medium: 'Medium',
}

/** What leads are narrowed to by following a figure, each to be taken off. */
export function LeadChips({
  view: { answer, where, from, to, tag },
  narrow,
}: {
  view: LeadView
  narrow: Narrow
}) {
  return (
    <>
      {answer !== undefined && (
        <Chip
          label={`Answer: ${answer.label}`}
          onDelete={() => {
            narrow({ question: null, answer: null, as: null })
          }}
        />
      )}
      {Object.entries(where).map(([name, value]) => (
        <Chip
          key={name}
          label={`${WHERE[name as WhereName]}: ${value === '' ? 'Not known' : value}`}
          onDelete={() => {
            narrow({ [name]: null })
          }}
        />
      ))}
      {(from !== undefined || to !== undefined) && (
        <Chip
          label={`Days: ${from === undefined ? '' : day(from)} to ${to === undefined ? 'today' : day(to)}`}
          onDelete={() => {
            narrow({ from: null, to: null })
          }}
        />
      )}
      {tag !== undefined && (
        <Chip
          label={`Tag: ${tag}`}
          onDelete={() => {
            narrow({ tag: null })
          }}
        />
      )}
    </>
  )
}
