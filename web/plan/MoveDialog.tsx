import { Dialog, DialogContent, DialogTitle, MenuItem, Stack, TextField, Typography } from '@mui/material'
import { campaignsApi } from '@flimbo/core/campaigns'
import { codesApi } from '@flimbo/core/codes'
import { routesApi } from '@flimbo/core/routing'
import { useState } from 'react'
import { ApiProblem, useAnswer, useChange } from '../api/index.ts'
import { RouteChoice } from '../routing/index.ts'
import { quantity } from '@flimbo/core/formats'
import { Fault, DialogButtons } from '../ui/index.ts'

/** Moves pieces to another campaign or onto another route; their scans go with them. */
export function MoveDialog({
  ids,
  campaignId,
  close,
  moved,
}: {
  ids: readonly number[] | null
  campaignId: number
  close: () => void
  moved: (sentence: string) => void
}) {
  const [to, setTo] = useState(campaignId)
  const [route, setRoute] = useState<number | null>(null)
  const [trouble, setTrouble] = useState<string | null>(null)
  const campaigns = useAnswer(campaignsApi.names, {})
  const routes = useAnswer(routesApi.names, { query: { campaignId: to } })
  const move = useChange(codesApi.move)
  const here = to === campaignId
  const submit = async () => {
    setTrouble(null)
    try {
      const { moved: count } = await move.mutateAsync({
        body: { ids: [...(ids ?? [])], campaignId: to, routeId: route },
      })
      moved(`${quantity(count, 'piece')} moved.`)
    } catch (error) {
      setTrouble(
        error instanceof ApiProblem
          ? error.problem.detail
          : 'The pieces could not be moved. Nothing was changed.',
      )
    }
  }
  return (
    <Dialog open={ids !== null} onClose={close} fullWidth maxWidth="xs" aria-labelledby="move-title">
      <DialogTitle id="move-title">Move {quantity(ids?.length ?? 0, 'piece')}</DialogTitle>
      <DialogContent>
        <Stack spacing={2} sx={{ pt: 1 }}>
          <Fault sentence={trouble} />
          <TextField
            select
            size="small"
            label="To the campaign"
            value={to}
            onChange={(event) => {
              setTo(Number(event.target.value))
              setRoute(null)
            }}
          >
            {(campaigns.data?.rows ?? []).map(({ id, name }) => (
              <MenuItem key={id} value={id}>
                {name}
                {id === campaignId ? ' (this one)' : ''}
              </MenuItem>
            ))}
          </TextField>
          <RouteChoice
            label="Leading"
            none="where they lead now"
            routes={routes.data?.rows ?? []}
            value={route}
            change={setRoute}
            fault={here && route === null ? 'Choose the route they are to share.' : undefined}
          />
          <Typography variant="body2" color="textSecondary">
            Short links stay as they are printed, and every scan moves along.
            {here ? '' : ' The pieces take the other campaign’s utm_campaign from the next scan on.'}
          </Typography>
        </Stack>
      </DialogContent>
      <DialogButtons
        close={close}
        label="Move"
        act={submit}
        isDisabled={move.isPending || (here && route === null)}
      />
    </Dialog>
  )
}
