import { Alert, Box, Button, Typography } from '@mui/material'
import { checksApi } from '@flimbo/core/checks'
import { ApiProblem, useAnswer, useChange } from '../api/index.ts'
import { moment, Sheet, When } from '../ui/index.ts'

const OLDER_SHOWN = 5

/** Whether people arrive where a route leads: the newest check hop by hop, and the ones before it. */
export function RouteCheck({ id, zone }: { id: number; zone: string }) {
  const checks = useAnswer(checksApi.latest, { params: { id } })
  const check = useChange(checksApi.route)
  const [newest, ...older] = checks.data?.rows ?? []
  return (
    <Sheet title="Destination check" aside={<Button disabled={check.isPending} onClick={() => { check.mutate({ params: { id } }) }}>{check.isPending ? 'Following it…' : 'Check now'}</Button>}>
      {check.isError && <Alert severity="error" variant="outlined">{check.error instanceof ApiProblem ? check.error.problem.detail : 'The check could not be made.'}</Alert>}
      {checks.data && !newest && <Typography variant="body2" color="textSecondary">Not checked yet; every live destination is looked at each night.</Typography>}
      {newest && (
        <>
          <Typography variant="body2" color={newest.verdict === 'fine' ? undefined : 'warning'} role="status">{newest.sentence} <Typography component="span" variant="body2" color="textSecondary"><When at={newest.at} zone={zone} />{newest.failingSince !== null && `, failing since ${moment(newest.failingSince, zone)}`}</Typography></Typography>
          <Box component="ol" aria-label="Requests on the way" sx={{ m: 0, mt: 0.5, pl: 2.5 }}>
            {newest.hops.map(({ address, status, ms }, i) => <li key={i}><Typography component="span" variant="mono" sx={{ overflowWrap: 'anywhere', fontSize: '0.75rem' }}>{address}</Typography> <Typography component="span" variant="body2" color="textSecondary">{status ?? 'no answer'}, {ms} ms</Typography></li>)}
          </Box>
          {older.slice(0, OLDER_SHOWN).map(({ id: each, at, sentence }) => <Typography key={each} variant="body2" color="textSecondary"><When at={at} zone={zone} />: {sentence}</Typography>)}
        </>
      )}
    </Sheet>
  )
}
