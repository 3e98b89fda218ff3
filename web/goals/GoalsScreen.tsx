import AddIcon from '@mui/icons-material/Add'
import { Alert, Box, Button, Link, MenuItem, Skeleton, Stack, TextField, Typography } from '@mui/material'
import { campaignsApi } from '@flimbo/core/campaigns'
import { measureText } from '@flimbo/core/charts'
import { goalsApi, REFERENCE_HOURS, type GoalKind, type GoalRow } from '@flimbo/core/goals'
import { number } from '@flimbo/core/formats'
import { DataGrid, type GridColDef } from '@mui/x-data-grid'
import { Link as RouterLink, useSearchParams } from 'react-router'
import { sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { Empty, Fault, neighbour, Sheet, Trouble, useKeys, When } from '../ui/index.ts'
import { GoalEvents } from './GoalEvents.tsx'
import { GoalInspector } from './GoalInspector.tsx'
import { SitePages } from './SitePages.tsx'

const NEW = 'new'
/** The name in the address that says which goal is open. */
const CHOSEN = 'goal'
const SENTENCES: Readonly<Record<GoalKind, (goal: GoalRow) => string>> = {
  address: ({ pattern }) => `opens ${pattern}`,
  click: ({ selector }) => `clicks ${selector}`,
  sent: ({ key, signedOnly }) => `site sends ${key}${signedOnly ? ', signed' : ''}`,
}
const HOURS: Readonly<Record<(typeof REFERENCE_HOURS)[number], string>> = {
  0: 'are not told of scans',
  1: 'know a scan for an hour',
  24: 'know a scan for a day',
  168: 'know a scan for a week',
  720: 'know a scan for 30 days',
}

/** What is wanted of a campaign's visitors once they are on the site. */
export function GoalsScreen() {
  const { id: campaignId, zone } = useCampaign()
  const goals = useAnswer(goalsApi.list, { query: { campaignId } })
  const [address, setAddress] = useSearchParams()
  const chosen = address.get(CHOSEN)
  const rows = goals.data?.rows ?? []
  const goal = rows.find(({ id }) => String(id) === chosen) ?? null
  const choose = (id: number | typeof NEW | null) => {
    setAddress(id === null ? {} : { [CHOSEN]: String(id) })
  }
  useKeys({
    j: () => {
      choose(neighbour(rows, goal?.id, 1)?.id ?? null)
    },
    k: () => {
      choose(neighbour(rows, goal?.id, -1)?.id ?? null)
    },
  })
  if (goals.isError) return <Trouble error={goals.error} />
  if (!goals.data) return <Skeleton variant="rounded" height={320} sx={{ m: 2 }} />
  const { currency } = goals.data
  const columns: GridColDef<GoalRow>[] = [
    {
      field: 'name',
      headerName: 'Goal',
      flex: 1,
      minWidth: 150,
      renderCell: ({ row }) => (
        <Button
          color="inherit"
          sx={{ font: 'inherit', justifyContent: 'flex-start', minWidth: 0, px: 0.5, height: '100%' }}
          onClick={() => {
            choose(row.id)
          }}
        >
          {row.name}
        </Button>
      ),
    },
    {
      field: 'kind',
      headerName: 'Reached when',
      flex: 1.4,
      valueGetter: (_v, row) => SENTENCES[row.kind](row),
    },
    { field: 'isOn', headerName: 'State', width: 80, valueGetter: (_v, row) => (row.isOn ? 'On' : 'Off') },
    {
      field: 'reached',
      headerName: 'Reached',
      type: 'number',
      width: 110,
      valueFormatter: (n: number) => number(n),
    },
    {
      field: 'worth',
      headerName: 'Worth',
      type: 'number',
      width: 110,
      valueFormatter: (amount: number) => measureText('value', amount, currency),
    },
    {
      field: 'lastAt',
      headerName: 'Last',
      width: 130,
      renderCell: ({ row }) => <When at={row.lastAt} zone={zone} />,
    },
  ]
  return (
    <Box sx={{ display: 'flex', minHeight: 0, flex: 1 }}>
      <Stack spacing={2} sx={{ flex: 1, minWidth: 0, p: 2 }}>
        <Stack direction="row" sx={{ gap: 2, alignItems: 'center' }}>
          <Typography variant="h1" sx={{ flex: 1 }}>
            Goals on the site
          </Typography>
          <Button component={RouterLink} to="../results" relative="path" color="inherit">
            Results
          </Button>
          <Button
            variant="contained"
            startIcon={<AddIcon />}
            onClick={() => {
              choose(NEW)
            }}
          >
            Add goal
          </Button>
        </Stack>
        <Carrying hasGoals={rows.length > 0} />
        <Sheet pad={false}>
          {rows.length === 0 ? (
            <Empty
              title="No goal yet"
              text="Say what is wanted of visitors once they are on the site: a page they reach, something they click, an order. Each is counted for the piece that brought them."
              action={
                <Button
                  variant="outlined"
                  onClick={() => {
                    choose(NEW)
                  }}
                >
                  Add the first goal
                </Button>
              }
            />
          ) : (
            <DataGrid
              aria-label="Goals"
              rows={rows}
              columns={columns}
              density="compact"
              disableRowSelectionOnClick
              hideFooter
              onRowClick={({ id }) => {
                choose(Number(id))
              }}
              sx={{ border: 0 }}
            />
          )}
        </Sheet>
        {rows.length > 0 && <GoalEvents key={goal?.id ?? 0} goal={goal} currency={currency} />}
        <SitePages />
      </Stack>
      {(goal !== null || chosen === NEW) && (
        <GoalInspector
          key={chosen}
          campaignId={campaignId}
          goal={goal}
          currency={currency}
          param={CHOSEN}
          close={() => {
            choose(null)
          }}
          choose={choose}
        />
      )}
    </Box>
  )
}

/** Whether redirects tell the site which scan brought a visitor, and whether the site answers. */
function Carrying({ hasGoals }: { hasGoals: boolean }) {
  const { id, version, referenceHours, zone } = useCampaign()
  const change = useChange(campaignsApi.change)
  const site = useAnswer(goalsApi.site, {}, { refetchInterval: 10_000 })
  const lastAt = site.data?.lastAt ?? null
  return (
    <Sheet>
      <Stack direction="row" sx={{ gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
        <TextField
          select
          size="small"
          label="Sites that scans lead to"
          value={referenceHours}
          disabled={change.isPending}
          sx={{ width: 260 }}
          onChange={({ target }) => {
            const hours = REFERENCE_HOURS.find((each) => each === Number(target.value)) ?? 0
            change.mutate({ params: { id }, body: { version, referenceHours: hours } })
          }}
        >
          {REFERENCE_HOURS.map((hours) => (
            <MenuItem key={hours} value={hours}>
              {HOURS[hours]}
            </MenuItem>
          ))}
        </TextField>
        <Typography variant="body2" color="textSecondary" sx={{ flex: 1, minWidth: 300 }}>
          {referenceHours === 0
            ? 'Redirects lead to the plain address.'
            : 'Redirects carry a signed reference of the scan in the parameter “flimbo”; it names no person.'}{' '}
          {lastAt === null ? (
            'No site has reported yet.'
          ) : (
            <>
              A site last reported <When at={lastAt} zone={zone} />.
            </>
          )}{' '}
          <Link component={RouterLink} to="/settings/goals" underline="always">
            Script and settings of sites
          </Link>
        </Typography>
      </Stack>
      {hasGoals && referenceHours === 0 && (
        <Alert severity="warning" variant="outlined" sx={{ mt: 1 }}>
          Goals are counted only while sites know a scan. Choose for how long.
        </Alert>
      )}
      <Fault sentence={change.isError ? sentenceOf(change.error, 'This could not be saved.') : null} />
    </Sheet>
  )
}
