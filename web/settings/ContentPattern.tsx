import { TextField } from '@mui/material'
import { fillPattern, PATTERN_FIELDS, patternFault, tidyValue, type HouseRules } from '@flimbo/core/tagging'

const SAMPLE = {
  name: 'Pier poster, west',
  place: 'Ferry pier, west gate',
  size: 60,
  medium: 'print',
  source: 'pier-poster',
  term: '',
  reference: 'SL-1101',
  key: 'A-17',
  route: 'Timetable page',
  campaign: 'summer-26',
  link: 'PIERWEST',
}

/** What content is made of, with an example of what comes of it. */
export function ContentPattern({ rules, change }: { rules: HouseRules; change: (pattern: string) => void }) {
  const pattern = rules.contentPattern
  const fault = patternFault(pattern)
  return (
    <TextField
      size="small"
      label="Content pattern"
      value={pattern}
      onChange={(event) => {
        change(event.target.value)
      }}
      placeholder="{place}-{size}"
      error={fault !== null}
      sx={{ maxWidth: 560 }}
      helperText={
        fault ??
        (pattern === ''
          ? `Empty: content is written by hand. Fields: ${PATTERN_FIELDS.map((field) => `{${field}}`).join(' ')}`
          : `For example: ${tidyValue(fillPattern(pattern, SAMPLE), rules)}`)
      }
    />
  )
}
