import { Link, Skeleton, Stack, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { routesApi, type RouteName, type WholeRoute } from '@flimbo/core/routing'
import { Link as RouterLink, useSearchParams } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { Trouble } from '../ui/index.ts'
import { PlanView } from './PlanView.tsx'
import { SettingsView } from './SettingsView.tsx'

interface Props {
  readonly id: number
  readonly others: readonly RouteName[]
  readonly focusDestination: number
}

/** One route: its signal plan, the test scan under it, and what is chosen at the right; or its settings and changes. */
export function RouteEditor({ id, others, focusDestination }: Props) {
  const { data, isError, error, refetch } = useAnswer(routesApi.get, { params: { id } })
  if (isError)
    return (
      <Trouble
        error={error}
        retry={() => {
          void refetch()
        }}
      />
    )
  if (data?.id !== id) return <Skeleton variant="rounded" height={320} />
  return (
    <Editor
      route={data}
      others={others.filter((other) => other.id !== id)}
      focusDestination={focusDestination}
    />
  )
}

function Editor({
  route,
  others,
  focusDestination,
}: {
  route: WholeRoute
  others: readonly RouteName[]
  focusDestination: number
}) {
  const { zone } = useCampaign()
  const [address, setAddress] = useSearchParams()
  const view = address.get('view') === 'settings' ? 'settings' : 'plan'
  const show = (next: string | null) => {
    if (next)
      setAddress(
        (was) => {
          was.set('route', String(route.id))
          if (next === 'plan') was.delete('view')
          else was.set('view', next)
          return was
        },
        { replace: true },
      )
  }
  return (
    <Stack spacing={2} sx={{ minWidth: 0 }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 2 }}>
        <Typography variant="h2" sx={{ flex: 1, fontSize: '1.1rem', minWidth: 0 }} noWrap>
          {route.name}
        </Typography>
        <Link component={RouterLink} to={`../results?route=${String(route.id)}`} variant="body2">
          Results of this route
        </Link>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={view}
          aria-label="View"
          onChange={(_event, next: string | null) => {
            show(next)
          }}
        >
          <ToggleButton value="plan">Signal plan</ToggleButton>
          <ToggleButton value="settings">Settings and changes</ToggleButton>
        </ToggleButtonGroup>
      </Stack>
      {view === 'settings' ? (
        <SettingsView route={route} zone={zone} />
      ) : (
        <PlanView route={route} others={others} focusDestination={focusDestination} />
      )}
    </Stack>
  )
}
