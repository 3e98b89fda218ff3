import {
  Alert,
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
  Typography,
} from '@mui/material'
import { domainChange, domainsApi, type Domain } from '@flimbo/core/domains'
import { useEffect, useState } from 'react'
import { useForm } from 'react-hook-form'
import { ApiProblem, byContract, showFaults, useChange } from '../api/index.ts'
import { counted } from '@flimbo/core/formats'
import { Copyable, FormText, Sheet, When } from '../ui/index.ts'
import { useSession } from '../session/index.ts'

interface Values {
  home: string
  unknown: string
  unknownText: string
}
const FIELDS = ['home', 'unknown', 'unknownText'] as const
const STATES = { waiting: '◐ waits for its records', ready: '● ready', removed: '○ removed' } as const

/** One domain: its records, its check, and what it answers beside short links. */
export function DomainSheet({ domain }: { domain: Domain }) {
  const { workspace, standIns } = useSession()
  const [removing, setRemoving] = useState(false)
  const [trouble, setTrouble] = useState<string | null>(null)
  const check = useChange(domainsApi.check)
  const standIn = useChange(domainsApi.standIn)
  const change = useChange(domainsApi.change)
  const params = { id: domain.id }
  const {
    control,
    handleSubmit,
    reset,
    setError,
    formState: { isDirty },
  } = useForm<Values>({
    defaultValues: domain,
    resolver: byContract(domainChange, (values) => ({ ...values, version: domain.version })),
  })
  useEffect(() => {
    if (!isDirty) reset({ home: domain.home, unknown: domain.unknown, unknownText: domain.unknownText })
  }, [domain, isDirty, reset])
  const attempt = async (work: () => Promise<unknown>) => {
    setTrouble(null)
    try {
      await work()
    } catch (error) {
      setTrouble(showFaults(error, setError, FIELDS))
    }
  }
  const save = handleSubmit(async ({ home, unknown, unknownText }) => {
    await attempt(async () => {
      reset(
        await change.mutateAsync({ params, body: { version: domain.version, home, unknown, unknownText } }),
      )
    })
  })
  return (
    <Sheet
      title={
        <>
          {domain.host}{' '}
          <Typography
            component="span"
            variant="body2"
            color={domain.state === 'waiting' ? 'warning' : 'textSecondary'}
          >
            {domain.own ? 'the front door’s own address' : STATES[domain.state]}
            {domain.isDefault && ' · default'} · {counted(domain.links, 'short link')}
          </Typography>
        </>
      }
      aside={
        <Stack direction="row" spacing={1}>
          {!domain.isDefault && domain.state === 'ready' && (
            <Button
              onClick={() => {
                void attempt(() =>
                  change.mutateAsync({ params, body: { version: domain.version, isDefault: true } }),
                )
              }}
            >
              Make default
            </Button>
          )}
          {!domain.own && (
            <Button
              color="error"
              onClick={() => {
                setRemoving(true)
              }}
            >
              Remove
            </Button>
          )}
        </Stack>
      }
    >
      <Stack spacing={2}>
        {trouble !== null && (
          <Alert severity="error" variant="outlined">
            {trouble}
          </Alert>
        )}
        {domain.records && (
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
                    <Copyable value={domain.records.cname.name} label="the name" />
                  </TableCell>
                  <TableCell>
                    <Copyable value={domain.records.cname.value} label="the value" />
                  </TableCell>
                </TableRow>
                <TableRow>
                  <TableCell>TXT</TableCell>
                  <TableCell>
                    <Copyable value={domain.records.txt.name} label="the name of the proof" />
                  </TableCell>
                  <TableCell>
                    <Copyable value={domain.records.txt.value} label="the proof" />
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
        )}
        <Stack
          component="form"
          noValidate
          spacing={2}
          onSubmit={(event) => {
            void save(event)
          }}
        >
          <Stack direction="row" spacing={2}>
            <FormText
              control={control}
              name="home"
              label="The bare domain leads to"
              placeholder="https://"
              hint="Empty: a small page of Flimbo’s"
            />
            <FormText
              control={control}
              name="unknown"
              label="An unknown short link leads to"
              placeholder="https://"
              hint="Empty: a page that says there is no such link"
            />
          </Stack>
          <FormText
            control={control}
            name="unknownText"
            label="Words on that page"
            hint="Empty: Flimbo’s own words"
          />
          <Button
            type="submit"
            variant="contained"
            disabled={!isDirty || change.isPending}
            sx={{ alignSelf: 'flex-start' }}
          >
            Save
          </Button>
        </Stack>
      </Stack>
      <RemoveDomain
        domain={domain}
        open={removing}
        close={() => {
          setRemoving(false)
        }}
      />
    </Sheet>
  )
}

/** Removing a domain kills what is printed with it, so the number of its short links must be typed. */
function RemoveDomain({ domain, open, close }: { domain: Domain; open: boolean; close: () => void }) {
  const remove = useChange(domainsApi.remove)
  const [typed, setTyped] = useState('')
  const [trouble, setTrouble] = useState<string | null>(null)
  const sure = domain.links === 0 || typed.trim() === String(domain.links)
  const submit = async () => {
    try {
      await remove.mutateAsync({ params: { id: domain.id }, query: { links: domain.links } })
      close()
    } catch (error) {
      setTrouble(error instanceof ApiProblem ? error.problem.detail : 'The domain could not be removed.')
    }
  }
  return (
    <Dialog open={open} onClose={close} fullWidth maxWidth="xs" aria-labelledby="remove-domain">
      <DialogTitle id="remove-domain">Remove {domain.host}</DialogTitle>
      <DialogContent>
        <Stack spacing={2}>
          {trouble !== null && (
            <Alert severity="error" variant="outlined">
              {trouble}
            </Alert>
          )}
          <Typography>
            {domain.links === 0
              ? 'No short link is on it.'
              : `${counted(domain.links, 'short link')} die with it: whoever scans what is printed with them gets no further.`}
          </Typography>
          {domain.links > 0 && (
            <TextField
              size="small"
              label={`Type ${String(domain.links)} to go on`}
              value={typed}
              onChange={(event) => {
                setTyped(event.target.value)
              }}
            />
          )}
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={close} color="inherit">
          Cancel
        </Button>
        <Button
          variant="contained"
          color="error"
          disabled={!sure || remove.isPending}
          onClick={() => {
            void submit()
          }}
        >
          Remove the domain
        </Button>
      </DialogActions>
    </Dialog>
  )
}
