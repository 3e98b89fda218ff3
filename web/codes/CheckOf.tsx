import { Alert, Box, Button, Stack, Typography } from '@mui/material'
import { checksApi, type Check } from '@flimbo/core/checks'
import type { Code } from '@flimbo/core/codes'
import { ApiProblem, useChange } from '../api/index.ts'
import { moment, When } from '../ui/index.ts'

/** What the newest check of a piece's destination came to, and the means to check now. */
export function CheckOf({ code, zone }: { code: Pick<Code, 'id' | 'check'>; zone: string }) {
  const check = useChange(checksApi.code)
  const { check: newest } = code
  return (
    <Box>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
        <Typography variant="h3" sx={{ flex: 1 }}>Destination check</Typography>
        <Button disabled={check.isPending} onClick={() => { check.mutate({ params: { id: code.id } }) }}>{check.isPending ? 'Following it…' : 'Check now'}</Button>
      </Stack>
      {check.isError && <Alert severity="error" variant="outlined">{check.error instanceof ApiProblem ? check.error.problem.detail : 'The check could not be made.'}</Alert>}
      {newest === null && <Typography variant="body2" color="textSecondary">Not checked yet; every live destination is looked at each night.</Typography>}
      {newest !== null && <Typography variant="body2" sx={newest.verdict === 'fine' ? {} : { color: 'warning.main' }} role="status">{newest.sentence} <Typography component="span" variant="body2" color="textSecondary"><When at={newest.at} zone={zone} />{newest.failingSince !== null && `, failing since ${moment(newest.failingSince, zone)}`}</Typography></Typography>}
      {check.data && <Hops check={check.data} />}
    </Box>
  )
}

/** Each request on the way. */
function Hops({ check }: { check: Pick<Check, 'hops'> }) {
  return (
    <Box component="ol" aria-label="Requests on the way" sx={{ m: 0, mt: 0.5, pl: 2.5 }}>
      {check.hops.map(({ address, status, ms }, i) => (
        <li key={i}><Typography component="span" variant="mono" sx={{ overflowWrap: 'anywhere', fontSize: '0.75rem' }}>{address}</Typography> <Typography component="span" variant="body2" color="textSecondary">{status ?? 'no answer'}, {ms} ms</Typography></li>
      ))}
    </Box>
  )
}
