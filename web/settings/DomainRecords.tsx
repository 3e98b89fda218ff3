import {
  Box,
  Button,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material'
import { domainsApi, type Domain } from '@flimbo/core/domains'
import { useChange } from '../api/index.ts'
import { useSession } from '../session/index.ts'
import { Copyable, When } from '../ui/index.ts'

interface Props {
  readonly domain: Domain
  readonly records: NonNullable<Domain['records']>
  /** Does what was asked for and says what went wrong with it. */
  readonly attempt: (work: () => Promise<unknown>) => Promise<void>
}

/** The records that prove a domain and send its scans here, with the check of both. */
export function DomainRecords({ domain, records, attempt }: Props) {
  const { workspace, standIns } = useSession()
  const check = useChange(domainsApi.check)
  const standIn = useChange(domainsApi.standIn)
  const params = { id: domain.id }
  return (
    <>
      <Table size="small" aria-label={`Records of ${domain.host}`}>
        <TableHead>
          <TableRow>
            <TableCell sx={{ width: 80 }}>Type</TableCell>
            <TableCell>Name</TableCell>
            <TableCell>Value</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          <TableRow>
            <TableCell>CNAME</TableCell>
            <TableCell>
              <Copyable value={records.cname.name} label="the name" />
            </TableCell>
            <TableCell>
              <Copyable value={records.cname.value} label="the value" />
            </TableCell>
          </TableRow>
          <TableRow>
            <TableCell>TXT</TableCell>
            <TableCell>
              <Copyable value={records.txt.name} label="the name of the proof" />
            </TableCell>
            <TableCell>
              <Copyable value={records.txt.value} label="the proof" />
            </TableCell>
          </TableRow>
        </TableBody>
      </Table>
      <Stack direction="row" sx={{ gap: 2, alignItems: 'center' }}>
        <Button
          variant="outlined"
          disabled={check.isPending}
          onClick={() => {
            void attempt(() => check.mutateAsync({ params }))
          }}
        >
          {check.isPending ? 'Looking…' : 'Check'}
        </Button>
        {standIns && (
          <Button
            color="inherit"
            onClick={() => {
              void attempt(() => standIn.mutateAsync({ params }))
            }}
          >
            Set them in the DNS stand-in
          </Button>
        )}
        <Typography variant="body2" role="status" sx={{ flex: 1 }}>
          {domain.finding || 'Set both records where the domain’s DNS is kept, then press check.'}{' '}
          {domain.checkedAt !== null && (
            <Box component="span" sx={{ color: 'text.secondary' }}>
              <When at={domain.checkedAt} zone={workspace.zone} />
            </Box>
          )}
        </Typography>
      </Stack>
    </>
  )
}
