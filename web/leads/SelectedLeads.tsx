import { Button, Stack, Typography } from '@mui/material'
import { quantity } from '@flimbo/core/formats'
import { useSession } from '../session/index.ts'
import { freshMark } from './person.ts'
import type { LeadChanges } from './useLeadChange.ts'
import { useLeadStates } from './useLeadStates.ts'

/** What can be done with several leads at once. */
export function SelectedLeads({
  ids,
  isHeld,
  changes,
  clear,
}: {
  ids: readonly number[]
  isHeld: boolean
  changes: LeadChanges
  clear: () => void
}) {
  const { person } = useSession()
  const { states } = useLeadStates()
  const some = quantity(ids.length, 'lead')
  return (
    <Stack
      direction="row"
      role="region"
      aria-label="Selected leads"
      sx={{ gap: 1, mb: 1, alignItems: 'center', flexWrap: 'wrap' }}
    >
      <Typography variant="body2" sx={{ fontWeight: 650 }}>
        {some} selected
      </Typography>
      {isHeld ? (
        <Button
          size="small"
          variant="outlined"
          onClick={() => {
            changes.apply(ids, { isHeld: false }, `${some} taken.`)
            clear()
          }}
        >
          Take them
        </Button>
      ) : (
        states.map(({ key, name }) => (
          <Button
            key={key}
            size="small"
            variant="outlined"
            onClick={() => {
              changes.apply(ids, { state: key }, `${some} set to ${name.toLowerCase()}.`)
            }}
          >
            {name}
          </Button>
        ))
      )}
      <Button
        size="small"
        onClick={() => {
          changes.apply(ids, { assignedTo: person.id }, `${some} assigned to you.`)
        }}
      >
        Assign to me
      </Button>
      {ids.length > 1 && (
        <Button
          size="small"
          onClick={() => {
            changes.apply(ids, { personMark: freshMark('same') }, `${some} joined as one person.`)
          }}
        >
          Same person
        </Button>
      )}
      <Button size="small" color="inherit" onClick={clear}>
        Clear
      </Button>
    </Stack>
  )
}
