import { Button, Stack, Typography } from '@mui/material'
import { quantity } from '@flimbo/core/formats'
import { LEAD_STATE_NAMES, LEAD_STATES } from '@flimbo/core/leads'
import { useSession } from '../session/index.ts'
import type { LeadChanges } from './useLeadChange.ts'

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
        LEAD_STATES.map((state) => (
          <Button
            key={state}
            size="small"
            variant="outlined"
            onClick={() => {
              changes.apply(ids, { state }, `${some} set to ${LEAD_STATE_NAMES[state].toLowerCase()}.`)
            }}
          >
            {LEAD_STATE_NAMES[state]}
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
      <Button size="small" color="inherit" onClick={clear}>
        Clear
      </Button>
    </Stack>
  )
}
