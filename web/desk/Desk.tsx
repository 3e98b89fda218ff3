import AddIcon from '@mui/icons-material/Add'
import { Box, Button, Pagination, Paper, Skeleton, Stack, Typography } from '@mui/material'
import { campaignsApi } from '@flimbo/core/campaigns'
import { lazy, Suspense, useState } from 'react'
import { Link as RouterLink } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { Empty, Trouble, useIsFetched, useKeys } from '../ui/index.ts'
import { Bounds } from './Bounds.tsx'
import { BrokenReleases } from './BrokenReleases.tsx'
import { CampaignSheet } from './CampaignSheet.tsx'
import { DeskOrder, type DeskLook } from './DeskOrder.tsx'
import { Notices } from '../watches/index.ts'
import { Unusual } from '../unusual/index.ts'
import { Failing } from './Failing.tsx'
import { NewLeads } from './NewLeads.tsx'

// Forms come when somebody fills one in.
const CampaignDialog = lazy(async () => ({ default: (await import('../campaigns/index.ts')).CampaignDialog }))

const PAGE_SIZE = 24

/** The home screen: campaigns side by side, each with its last thirty days. */
export function Desk() {
  const [page, setPage] = useState(0)
  const [look, setLook] = useState<DeskLook>({ sort: 'lastScan', shown: 'current' })
  const { sort, shown } = look
  const chooseLook = (chosen: DeskLook) => {
    setLook(chosen)
    setPage(0)
  }
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
        {data && data.total > 0 && (
          <Button component={RouterLink} to="/results">
            Results of all campaigns
          </Button>
        )}
        <DeskOrder {...look} choose={chooseLook} />
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
      <Notices />
      <Unusual />
      <NewLeads />
      <BrokenReleases />
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
