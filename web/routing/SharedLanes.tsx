import AddIcon from '@mui/icons-material/Add'
import { Alert, Box, Button, List, ListItemButton, Stack, TextField, Typography } from '@mui/material'
import { EVERY_SCAN, whoInWords } from '@flimbo/core/conditions'
import { laneSetsApi, outcomeInWords, type Lane, type LaneSet } from '@flimbo/core/routing'
import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { newerOf, sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { counted } from '@flimbo/core/formats'
import { Empty, Sheet, Trouble, swapped } from '../ui/index.ts'
import { LaneInspector } from './LaneInspector.tsx'
import { Track } from './LaneRow.tsx'
import { freshKey } from './useDraft.ts'
import { useNames } from './useNames.ts'

const ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone

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
        again={() => {
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
              Begin a set
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
                {counted(lanes.length, 'lane')} · {counted(routes.length, 'route')}
              </Typography>
            </ListItemButton>
          ))}
        </List>
        <Button startIcon={<AddIcon />} sx={{ m: 1 }} disabled={create.isPending} onClick={add}>
          Begin another set
        </Button>
      </Sheet>
      {chosen && <SetEditor key={chosen.id} set={chosen} />}
    </Box>
  )
}

function SetEditor({ set }: { set: LaneSet }) {
  const [local, setLocal] = useState<{ name: string; lanes: readonly Lane[]; version: number } | null>(null)
  const { name, lanes, version } = local ?? set
  const edit = (part: { name?: string; lanes?: readonly Lane[] }) => {
    setLocal({ name, lanes, version, ...part })
  }
  const setLanes = (next: readonly Lane[]) => {
    edit({ lanes: next })
  }
  const [inspected, inspect] = useState<string | null>(null)
  const names = useNames()
  const change = useChange(laneSetsApi.change)
  const remove = useChange(laneSetsApi.remove)
  const isChanged = name !== set.name || JSON.stringify(lanes) !== JSON.stringify(set.lanes)
  const lane = lanes.find(({ id }) => id === inspected)
  const add = (copied?: Lane) => {
    const id = freshKey(lanes.map((each) => each.id))
    setLanes([
      ...lanes,
      copied
        ? { ...copied, id }
        : {
            id,
            name: '',
            condition: EVERY_SCAN,
            outcome: { kind: 'message', title: 'No boats today', text: '' },
            resting: true,
          },
    ])
    inspect(id)
  }
  const move = (from: number, to: number) => {
    if (to >= 0 && to < lanes.length) setLanes(swapped(lanes, from, to))
  }
  const save = (from: number) => {
    change.mutate(
      { params: { id: set.id }, body: { version: from, name, lanes: [...lanes] } },
      {
        onSuccess: () => {
          setLocal(null)
        },
      },
    )
  }
  const reset = () => {
    setLocal(null)
    change.reset()
  }
  const isOvertaken = newerOf(change.error) !== null
  const error = isOvertaken ? remove.error : (change.error ?? remove.error)
  return (
    <Box sx={{ display: 'flex', gap: 2, alignItems: 'flex-start', minWidth: 0 }}>
      <Stack sx={{ flex: 1, minWidth: 0, gap: 2 }}>
        <Sheet
          title={set.name}
          pad={false}
          aside={
            <Button
              startIcon={<AddIcon />}
              variant="outlined"
              onClick={() => {
                add()
              }}
            >
              Add a lane
            </Button>
          }
        >
          <Box sx={{ p: 2 }}>
            <TextField
              size="small"
              label="Name of the set"
              value={name}
              onChange={({ target }) => {
                edit({ name: target.value })
              }}
              fullWidth
            />
          </Box>
          {lanes.map((each, i) => (
            <Track
              key={each.id}
              place={String(i + 1)}
              sentence={each.name === '' ? whoInWords(each.condition) : each.name}
              aside={each.resting ? 'resting: takes no scan' : undefined}
              leads={outcomeInWords(each.outcome, names)}
              scans={null}
              all={0}
              isLit={false}
              isChosen={each.id === inspected}
              isResting={each.resting}
              isLast={i === lanes.length - 1}
              choose={() => {
                inspect(each.id)
              }}
              onKeyDown={(event) => {
                const by = event.altKey ? { ArrowUp: -1, ArrowDown: 1 }[event.key] : undefined
                if (by !== undefined) {
                  event.preventDefault()
                  move(i, i + by)
                }
              }}
            />
          ))}
        </Sheet>
        <Sheet title="What a change of it changes">
          {set.routes.length === 0 ? (
            <Typography>No route uses this set. Choose it under “Shared lanes” on a route.</Typography>
          ) : (
            <>
              <Typography>Saving changes {counted(set.routes.length, 'route')} at once:</Typography>
              <Box component="ul" aria-label="Routes that use it" sx={{ m: 0 }}>
                {set.routes.map((route) => (
                  <li key={route.id}>
                    {route.campaignName}: {route.name}
                  </li>
                ))}
              </Box>
            </>
          )}
          {isOvertaken && (
            <Alert
              severity="warning"
              variant="outlined"
              sx={{ mt: 1 }}
              action={
                <>
                  <Button color="inherit" onClick={reset}>
                    Keep the stored version
                  </Button>
                  <Button
                    color="inherit"
                    onClick={() => {
                      save(set.version)
                    }}
                  >
                    Overwrite with mine
                  </Button>
                </>
              }
            >
              Someone saved this set after you began. Nothing was overwritten.
            </Alert>
          )}
          {error && (
            <Alert severity="error" variant="outlined" sx={{ mt: 1 }}>
              {sentenceOf(error, 'The server could not be reached. What you did is still here.')}
            </Alert>
          )}
          <Stack direction="row" sx={{ gap: 1, mt: 2 }}>
            <Button
              variant="contained"
              disabled={!isChanged || change.isPending}
              onClick={() => {
                save(version)
              }}
            >
              {set.routes.length === 0 ? 'Save' : `Save for ${counted(set.routes.length, 'route')}`}
            </Button>
            {isChanged && (
              <Button color="inherit" onClick={reset}>
                Discard changes
              </Button>
            )}
            <Box sx={{ flex: 1 }} />
            <Button
              color="error"
              disabled={remove.isPending}
              onClick={() => {
                remove.mutate({ params: { id: set.id } })
              }}
            >
              Take the set away
            </Button>
          </Stack>
        </Sheet>
      </Stack>
      {lane && (
        <Box sx={{ flexShrink: 0, border: 1, borderColor: 'divider', borderRadius: 1, overflow: 'hidden' }}>
          <LaneInspector
            lane={lane}
            place={lanes.indexOf(lane) + 1}
            zone={ZONE}
            others={[]}
            rows={null}
            close={() => {
              inspect(null)
            }}
            copy={() => {
              add(lane)
            }}
            change={(next) => {
              setLanes(lanes.map((each) => (each.id === lane.id ? next : each)))
            }}
            remove={() => {
              setLanes(lanes.filter(({ id }) => id !== lane.id))
              inspect(null)
            }}
          />
        </Box>
      )}
    </Box>
  )
}
