import AddIcon from '@mui/icons-material/Add'
import { Button, Stack, Typography } from '@mui/material'
import { quantity, number } from '@flimbo/core/formats'
import { lifeInWords, type Rules, type WholeRoute } from '@flimbo/core/routing'
import type { ReactNode } from 'react'
import type { Chosen } from './SignalPlan.tsx'

interface Props {
  readonly route: WholeRoute
  readonly rules: Rules
  /** Scans that passed the lanes in the period. */
  readonly passing: number
  readonly period: ReactNode
  readonly chosen: Chosen
  readonly choose: (chosen: Chosen) => void
  readonly addLane: () => void
}

/** What is true of the whole route, each a step from its inspector. */
export function PlanBar({ route, rules, passing, period, chosen, choose, addLane }: Props) {
  const { life, shared, askLocation, tags } = rules
  const met = tags.length + (route.locked ? 1 : 0) + (askLocation ? 1 : 0)
  const opener = (kind: 'life' | 'onTheWay' | 'shared' | 'apps', label: string) => (
    <Button
      size="small"
      color="inherit"
      variant={chosen?.kind === kind ? 'outlined' : 'text'}
      onClick={() => {
        choose({ kind })
      }}
    >
      {label}
    </Button>
  )
  return (
    <Stack
      direction="row"
      sx={{
        gap: 1,
        alignItems: 'center',
        flexWrap: 'wrap',
        px: 2,
        py: 1,
      }}
    >
      <Typography
        variant="body2"
        component="div"
        sx={{ flex: 1, minWidth: 200, display: 'flex', gap: 1, alignItems: 'center' }}
      >
        <span>
          {quantity(route.codes, 'code')} · {number(passing)} scans
        </span>
        {period}
      </Typography>
      {opener('life', `Dates and limits${life ? `: ${number(lifeInWords(life).length)}` : ''}`)}
      {opener('onTheWay', `On the way${met > 0 ? `: ${number(met)}` : ''}`)}
      {opener('shared', `Shared lanes${shared ? ': on' : ''}`)}
      {opener('apps', 'App switch')}
      <Button size="small" variant="outlined" startIcon={<AddIcon />} onClick={addLane}>
        Add lane
      </Button>
    </Stack>
  )
}
