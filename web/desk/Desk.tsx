import AddIcon from '@mui/icons-material/Add'
import {
  Box,
  Button,
  Link,
  MenuItem,
  Pagination,
  Paper,
  Skeleton,
  Stack,
  TextField,
  Typography,
} from '@mui/material'
import { campaignsApi, type Campaign } from '@flimbo/core/campaigns'
import { lazy, Suspense, useState } from 'react'
import { Link as RouterLink } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { quantity, day, number } from '@flimbo/core/formats'
import { Empty, Trouble, useIsFetched, useKeys, LastScan } from '../ui/index.ts'
import { Bounds } from './Bounds.tsx'
import { Failing } from './Failing.tsx'
import { Sparkline } from './Sparkline.tsx'

// Forms come when somebody fills one in.
const CampaignDialog = lazy(async () => ({ default: (await import('../campaigns/index.ts')).CampaignDialog }))

const PAGE_SIZE = 24
const SORTS = {
  lastScan: 'last scan first',
  scans: 'most scans first',
  name: 'by name',
  createdAt: 'newest first',
} as const
type Sort = keyof typeof SORTS

/** The home screen: campaigns side by side, each with its last thirty days. */
export function Desk() {
  const [page, setPage] = useState(0)
  const [sort, setSort] = useState<Sort>('lastScan')
  const [shown, setShown] = useState<'current' | 'archived'>('current')
  const [beginning, setBeginning] = useState(false)
  const isFetched = useIsFetched()
  const campaigns = useAnswer(campaignsApi.list, {
    query: { page, pageSize: PAGE_SIZE, sort, order: sort === 'name' ? 'asc' : 'desc', shown },
  })
  useKeys({
    n: () => {
      setBeginning(true)
    },
  })
  const { data } = campaigns
  const begin = (
    <Button
      variant="contained"
      startIcon={<AddIcon />}
      onClick={() => {
        setBeginning(true)
      }}
    >
      New campaign
    </Button>
  )
  return (
    <Box sx={{ p: 2, maxWidth: 1440, width: '100%', mx: 'auto' }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 2, mb: 2 }}>
        <Typography variant="h1" sx={{ flex: 1 }}>
          Desk
        </Typography>
        <TextField
          select
          size="small"
          value={shown}
          onChange={(event) => {
            setShown(event.target.value as typeof shown)
            setPage(0)
          }}
          slotProps={{ htmlInput: { 'aria-label': 'Which campaigns' } }}
          sx={{ minWidth: 120 }}
        >
          <MenuItem value="current">current</MenuItem>
          <MenuItem value="archived">archived</MenuItem>
        </TextField>
        <TextField
          select
          size="small"
          label="Order"
          value={sort}
          onChange={(event) => {
            setSort(event.target.value as Sort)
            setPage(0)
          }}
          sx={{ minWidth: 180 }}
        >
          {Object.entries(SORTS).map(([value, label]) => (
            <MenuItem key={value} value={value}>
              {label}
            </MenuItem>
          ))}
        </TextField>
        {begin}
      </Stack>
      {campaigns.isError && (
        <Trouble
          error={campaigns.error}
          retry={() => {
            void campaigns.refetch()
          }}
        />
      )}
      <Failing />
      <Bounds />
      {data?.total === 0 && shown === 'archived' && (
        <Typography color="textSecondary">No campaign is archived.</Typography>
      )}
      {data?.total === 0 && shown === 'current' && (
        <Paper variant="outlined">
          <Empty
            title="No campaign yet"
            text="A campaign holds the pieces you print, where their codes lead, and what came of them. Create one, then add its first piece."
            action={begin}
          />
        </Paper>
      )}
      <Box
        component="ul"
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(360px, 1fr))',
          gap: 2,
          p: 0,
          m: 0,
          listStyle: 'none',
        }}
      >
        {data?.rows.map((campaign) => (
          <li key={campaign.id}>
            <CampaignSheet campaign={campaign} />
          </li>
        ))}
        {!data &&
          !campaigns.isError &&
          [0, 1, 2, 3].map((i) => <Skeleton key={i} variant="rounded" height={182} />)}
      </Box>
      {data && data.total > PAGE_SIZE && (
        <Pagination
          sx={{ mt: 2 }}
          count={Math.ceil(data.total / PAGE_SIZE)}
          page={page + 1}
          onChange={(_event, to) => {
            setPage(to - 1)
          }}
        />
      )}
      {(beginning || isFetched) && (
        <Suspense fallback={null}>
          <CampaignDialog
            open={beginning}
            close={() => {
              setBeginning(false)
            }}
          />
        </Suspense>
      )}
    </Box>
  )
}

function dates({ startsOn, endsOn }: Campaign): string {
  if (startsOn && endsOn) return `${day(startsOn)} to ${day(endsOn)}`
  if (startsOn) return `from ${day(startsOn)}`
  return endsOn ? `until ${day(endsOn)}` : 'no dates set'
}

function CampaignSheet({ campaign }: { campaign: Campaign }) {
  const { id, name, codes, scans, recent, zone, pinned } = campaign
  return (
    <Paper variant="outlined" sx={{ p: 2, height: '100%', '&:hover': { borderColor: 'primary.main' } }}>
      <Link component={RouterLink} to={`/campaigns/${String(id)}/plan`} color="textPrimary">
        <Typography variant="h2" component="h2">
          {name}
          {pinned && (
            <Box
              component="span"
              sx={{ color: 'text.secondary', fontWeight: 400, fontSize: '0.75rem', ml: 1 }}
            >
              pinned
            </Box>
          )}
        </Typography>
      </Link>
      <Typography variant="body2" color="textSecondary">
        {dates(campaign)} · {quantity(codes, 'code')}
      </Typography>
      <Box sx={{ my: 1.5 }}>
        <Sparkline days={recent} />
        <Typography variant="caption" color="textSecondary">
          Scans a day, last {recent.length} days; the tallest {number(Math.max(0, ...recent))}
        </Typography>
      </Box>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'baseline' }}>
        <Figure value={number(scans.scans)} name="scans" />
        <Figure value={number(scans.uniques)} name="unique" />
        <Typography variant="body2" color="textSecondary">
          <LastScan at={scans.lastAt} zone={zone} />
        </Typography>
      </Stack>
    </Paper>
  )
}

function Figure({ value, name }: { value: string; name: string }) {
  return (
    <Typography component="span">
      <Box component="span" sx={{ fontSize: '1.25rem', fontWeight: 650 }}>
        {value}
      </Box>{' '}
      <Box component="span" sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
        {name}
      </Box>
    </Typography>
  )
}
