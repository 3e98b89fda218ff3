import AddIcon from '@mui/icons-material/Add'
import { Box, Button, List, ListItemButton, Typography } from '@mui/material'
import { laneSetsApi } from '@flimbo/core/routing'
import { useSearchParams } from 'react-router'
import { useAnswer, useChange } from '../api/index.ts'
import { quantity } from '@flimbo/core/formats'
import { Empty, Sheet, Trouble } from '../ui/index.ts'
import { LaneSetEditor } from './LaneSetEditor.tsx'

/** The sets of lanes that routes share: each with its lanes and with the routes that a change of it changes. */
export function SharedLanes() {
  const sets = useAnswer(laneSetsApi.list, {})
  const [address, setAddress] = useSearchParams()
  const create = useChange(laneSetsApi.create)
  const rows = sets.data?.rows ?? []
  const chosen = rows.find(({ id }) => id === Number(address.get('set'))) ?? rows[0]
  const choose = (id: number) => {
    setAddress({ set: String(id) }, { replace: true })
  }
  const add = () => {
    create.mutate(
      { body: { name: `Set ${String(rows.length + 1)}`, lanes: [] } },
      {
        onSuccess: ({ id }) => {
          choose(id)
        },
      },
    )
  }
  if (sets.isError)
    return (
      <Trouble
        error={sets.error}
        retry={() => {
          void sets.refetch()
        }}
      />
    )
  if (sets.data && rows.length === 0)
    return (
      <Sheet>
        <Empty
          title="No shared lanes yet"
          text="Lanes that many routes need, such as a storm warning, are defined here once. Create a set, or save a route’s lanes as one on Routes."
          action={
            <Button variant="contained" onClick={add}>
              New set
            </Button>
          }
        />
      </Sheet>
    )
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '232px minmax(0, 1fr)', gap: 2, alignItems: 'start' }}>
      <Sheet pad={false}>
        <List component="div" role="group" aria-label="Sets" disablePadding>
          {rows.map(({ id, name, lanes, routes }) => (
            <ListItemButton
              key={id}
              divider
              selected={id === chosen?.id}
              aria-current={id === chosen?.id}
              onClick={() => {
                choose(id)
              }}
              sx={{ display: 'block' }}
            >
              <Typography sx={{ fontWeight: 650 }} noWrap>
                {name}
              </Typography>
              <Typography variant="body2" color="textSecondary">
                {quantity(lanes.length, 'lane')} · {quantity(routes.length, 'route')}
              </Typography>
            </ListItemButton>
          ))}
        </List>
        <Button startIcon={<AddIcon />} sx={{ m: 1 }} disabled={create.isPending} onClick={add}>
          New set
        </Button>
      </Sheet>
      {chosen && <LaneSetEditor key={chosen.id} set={chosen} />}
    </Box>
  )
}
