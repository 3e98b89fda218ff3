import AddIcon from '@mui/icons-material/Add'
import { Box, Button, List, ListItemButton, Pagination, Stack, Typography } from '@mui/material'
import { routesApi, type Route } from '@flimbo/core/routing'
import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { quantity } from '@flimbo/core/formats'
import { Empty, neighbour, Sheet, Trouble, useKeys, LastScan, StateMark } from '../ui/index.ts'
import { NewRoute } from './NewRoute.tsx'
import { RouteEditor } from './RouteEditor.tsx'

const PAGE_SIZE = 50

/** The routes of a campaign at the left, the chosen one in the middle. */
export function RoutesScreen() {
  const campaign = useCampaign()
  const [address, setAddress] = useSearchParams()
  const [page, setPage] = useState(0)
  const [editing, setEditing] = useState(0)
  const routes = useAnswer(routesApi.list, { query: { campaignId: campaign.id, page, pageSize: PAGE_SIZE } })
  const rows = routes.data?.rows ?? []
  const all = useAnswer(routesApi.names, { query: { campaignId: campaign.id } }).data?.rows ?? []
  const adding = address.has('new')
  const asked = Number(address.get('route')) || rows[0]?.id
  const choose = (id: number) => {
    setAddress({ route: String(id) }, { replace: true })
  }
  const add = () => {
    setAddress({ new: '' }, { replace: true })
  }
  const step = (by: number) => {
    const next = neighbour(rows, asked, by)
    if (next) choose(next.id)
  }
  useKeys({
    j: () => {
      step(1)
    },
    k: () => {
      step(-1)
    },
    e: () => {
      setEditing((n) => n + 1)
    },
    n: add,
  })

  return (
    <Box sx={{ p: 2, width: '100%', maxWidth: 1760, mx: 'auto' }}>
      <Stack direction="row" sx={{ gap: 2, mb: 2, alignItems: 'center' }}>
        <Typography variant="h1" sx={{ flex: 1 }}>
          Routes
        </Typography>
        <Button variant="contained" startIcon={<AddIcon />} onClick={add}>
          New route
        </Button>
      </Stack>
      {routes.isError && (
        <Trouble
          error={routes.error}
          retry={() => {
            void routes.refetch()
          }}
        />
      )}
      {routes.data?.total === 0 && !adding ? (
        <Sheet>
          <Empty
            title="No route yet"
            text="A route is where scans go. Adding a piece with a destination makes one; several pieces may share it."
            action={
              <Button variant="contained" onClick={add}>
                Add the first route
              </Button>
            }
          />
        </Sheet>
      ) : (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: '200px minmax(0, 1fr)', xl: '232px minmax(0, 1fr)' },
            gap: 2,
            alignItems: 'start',
          }}
        >
          <Sheet pad={false}>
            <List component="div" role="group" aria-label="Routes" disablePadding>
              {rows.map((route) => (
                <RouteLine
                  key={route.id}
                  route={route}
                  zone={campaign.zone}
                  chosen={!adding && route.id === asked}
                  choose={() => {
                    choose(route.id)
                  }}
                />
              ))}
            </List>
            {(routes.data?.total ?? 0) > PAGE_SIZE && (
              <Pagination
                size="small"
                sx={{ p: 1 }}
                count={Math.ceil((routes.data?.total ?? 0) / PAGE_SIZE)}
                page={page + 1}
                onChange={(_event, to) => {
                  setPage(to - 1)
                }}
              />
            )}
          </Sheet>
          {adding ? (
            <NewRoute made={choose} />
          ) : (
            asked !== undefined && (
              <RouteEditor key={asked} id={asked} others={all} focusDestination={editing} />
            )
          )}
        </Box>
      )}
    </Box>
  )
}

function RouteLine({
  route,
  zone,
  chosen,
  choose,
}: {
  route: Route
  zone: string
  chosen: boolean
  choose: () => void
}) {
  return (
    <ListItemButton
      divider
      selected={chosen}
      onClick={choose}
      sx={{ display: 'block', py: 1 }}
      aria-current={chosen}
    >
      <Stack direction="row" sx={{ justifyContent: 'space-between', gap: 1 }}>
        <Typography noWrap sx={{ fontWeight: 650 }}>
          {route.name}
        </Typography>
        <Typography variant="body2">
          <StateMark state={route.state} />
        </Typography>
      </Stack>
      <Typography variant="mono" noWrap sx={{ display: 'block' }} color="textSecondary">
        {route.destination.replace(/^https?:\/\//, '')}
      </Typography>
      <Typography variant="body2" color="textSecondary">
        {quantity(route.codes, 'code')}
        {route.lanes > 0 ? ` · ${quantity(route.lanes, 'lane')}` : ''}
        {route.hasDraft ? ' · draft' : ''}
        <br />
        {quantity(route.scans.scans, 'scan')} · <LastScan at={route.scans.lastAt} zone={zone} />
      </Typography>
    </ListItemButton>
  )
}
