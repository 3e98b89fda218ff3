import { Box, Button, Link, Stack, Typography } from '@mui/material'
import { moment } from '@flimbo/core/formats'
import type { Lead } from '@flimbo/core/leads'
import { freshMark } from './person.ts'
import type { LeadChanges } from './useLeadChange.ts'

/** What else the same person answered; whoever is somebody else is parted from them. */
export function SamePerson({
  lead: { id, others, personMark },
  zone,
  changes,
  choose,
}: {
  lead: Lead
  zone: string
  changes: LeadChanges
  choose: (id: number) => void
}) {
  const isParted = personMark.startsWith('s:')
  if (others.length === 0 && !isParted) return null
  return (
    <Box>
      <Typography variant="h3">The same person</Typography>
      {isParted && (
        <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
          <Typography variant="body2" sx={{ flex: 1 }}>
            Somebody said that this is nobody else.
          </Typography>
          <Button
            size="small"
            onClick={() => {
              changes.apply([id], { personMark: '' }, '1 lead joined by its address and number again.')
            }}
          >
            Join again
          </Button>
        </Stack>
      )}
      {others.map((other) => (
        <Stack direction="row" key={other.id} sx={{ alignItems: 'center', gap: 1 }}>
          <Link
            component="button"
            type="button"
            sx={{ flex: 1, textAlign: 'left' }}
            onClick={() => {
              choose(other.id)
            }}
          >
            {moment(other.at, zone)}: {other.pageName || 'a page that is gone'}
          </Link>
          <Button
            size="small"
            aria-label={`Not the same: ${other.title}, ${moment(other.at, zone)}`}
            onClick={() => {
              changes.apply([other.id], { personMark: freshMark('other') }, '1 lead parted from this person.')
            }}
          >
            Not the same
          </Button>
        </Stack>
      ))}
    </Box>
  )
}
