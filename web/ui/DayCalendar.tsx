import { DateCalendar } from '@mui/x-date-pickers/DateCalendar'
import { LocalizationProvider } from '@mui/x-date-pickers/LocalizationProvider'
import { AdapterDateFns } from '@mui/x-date-pickers/AdapterDateFns'
import { FIRST_DAY, LAST_DAY } from '@flimbo/core/time'
import { format, parseISO } from 'date-fns'
import { enGB } from 'date-fns/locale'

/** A month to choose a day from, by mouse or by the arrow keys. */
export function DayCalendar({ value, choose }: { value: string; choose: (day: string) => void }) {
  return (
    <LocalizationProvider dateAdapter={AdapterDateFns} adapterLocale={enGB}>
      <DateCalendar
        autoFocus
        value={value === '' ? null : parseISO(value)}
        minDate={parseISO(FIRST_DAY)}
        maxDate={parseISO(LAST_DAY)}
        onChange={(picked: Date | null, selection) => {
          // A year or a month that is chosen only turns the pages.
          if (picked && selection === 'finish') choose(format(picked, 'yyyy-MM-dd'))
        }}
      />
    </LocalizationProvider>
  )
}
