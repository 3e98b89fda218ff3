import { Alert, Box, Button, Typography } from '@mui/material'
import type { Check } from '@flimbo/core/checks'
import { ApiProblem } from '../api/index.ts'
import { moment } from '@flimbo/core/formats'
import { When } from '../ui/index.ts'

/** The means to follow a destination now. */
export function CheckNow({ isPending, check }: { isPending: boolean; check: () => void }) {
  return (
    <Button disabled={isPending} onClick={check}>
      {isPending ? 'Checking…' : 'Check now'}
    </Button>
  )
}

/** What the newest check of a destination came to, with each request on the way where it is known; or that there was none, or why it could not be made. */
export function CheckResult({
  newest,
  hops,
  error,
  zone,
}: {
  newest: Pick<Check, 'verdict' | 'sentence' | 'at' | 'failingSince'> | null
  hops: Check['hops'] | undefined
  error: Error | null
  zone: string
}) {
  return (
    <>
      {error && (
        <Alert severity="error" variant="outlined">
          {error instanceof ApiProblem ? error.problem.detail : 'The check could not be made.'}
        </Alert>
      )}
      {newest === null && (
        <Typography variant="body2" color="textSecondary">
          Not checked yet; every live destination is looked at each night.
        </Typography>
      )}
      {newest !== null && (
        <Typography variant="body2" color={newest.verdict === 'fine' ? undefined : 'warning'} role="status">
          {newest.sentence}{' '}
          <Typography component="span" variant="body2" color="textSecondary">
            <When at={newest.at} zone={zone} />
            {newest.failingSince !== null && `, failing since ${moment(newest.failingSince, zone)}`}
          </Typography>
        </Typography>
      )}
      {hops && (
        <Box component="ol" aria-label="Requests on the way" sx={{ m: 0, mt: 0.5, pl: 2.5 }}>
          {hops.map(({ address, status, ms }, i) => (
            <li key={i}>
              <Typography
                component="span"
                variant="mono"
                sx={{ overflowWrap: 'anywhere', fontSize: '0.75rem' }}
              >
                {address}
              </Typography>{' '}
              <Typography component="span" variant="body2" color="textSecondary">
                {status ?? 'no answer'}, {ms} ms
              </Typography>
            </li>
          ))}
        </Box>
      )}
    </>
  )
}
