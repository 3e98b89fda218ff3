import {
  Box,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from '@mui/material'
import { addressInWords, leadsWhere, type Compiled, type Lane, type Rehearsal } from '@flimbo/core/routing'
import { leavesOf } from '@flimbo/core/conditions'
import type { KnownPlace } from '@flimbo/core/scans'
import { useState } from 'react'
import { OnePlace } from '../conditions/index.ts'
import { DEVICES, NO_PLACE, rehearse } from './rehearse.ts'

type Place = Rehearsal['place']
const HOURS = ['03:00', '09:00', '12:00', '18:00', '22:00'] as const
const keyOf = ({ country, city, latitude }: Place) => `${country}/${city}/${String(latitude)}`

/** Places that the lanes themselves speak of. */
function placesOf(lanes: readonly Lane[]): Place[] {
  return lanes
    .flatMap(({ condition }) => leavesOf(condition))
    .flatMap((leaf): Place[] => {
      if (leaf.kind === 'near')
        return [{ ...NO_PLACE, city: leaf.name, latitude: leaf.latitude, longitude: leaf.longitude }]
      if (leaf.kind === 'city') return leaf.in.map(({ country, city }) => ({ ...NO_PLACE, country, city }))
      if (leaf.kind === 'region')
        return leaf.in.map(({ country, region }) => ({ ...NO_PLACE, country, region }))
      if (leaf.kind === 'country') return leaf.in.slice(0, 3).map((country) => ({ ...NO_PLACE, country }))
      return []
    })
}

const nameOf = ({ country, region, city }: Place) =>
  [city || region, country].filter((part) => part !== '').join(', ') || 'Place not known'

/** Where many test scans at once would lead: a row a place, a column a device or a time of day. */
export function Matrix({
  compiled,
  lanes,
  given,
  now,
}: {
  compiled: Compiled | null
  lanes: readonly Lane[]
  given: Rehearsal
  now: number
}) {
  const [by, setBy] = useState<'devices' | 'hours'>('devices')
  const [added, setAdded] = useState<readonly KnownPlace[]>([])
  if (!compiled) return <Typography color="textSecondary">Complete the address to fill the table.</Typography>
  const ids = compiled.route.lanes.map(({ id }) => id)
  const places = [
    ...new Map(
      [given.place, ...added, ...placesOf(lanes), NO_PLACE].map((place) => [keyOf(place), place]),
    ).values(),
  ]
  const day = given.at === '' ? new Date(now).toISOString().slice(0, 10) : given.at.slice(0, 10)
  const columns =
    by === 'devices'
      ? DEVICES.map(({ name, device }) => ({ name, change: { device } }))
      : HOURS.map((hour) => ({ name: hour, change: { at: `${day}T${hour}` } }))
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Stack direction="row" sx={{ gap: 2, alignItems: 'center' }}>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={by}
          aria-label="Columns"
          onChange={(_event, next: 'devices' | 'hours' | null) => {
            if (next) setBy(next)
          }}
        >
          <ToggleButton value="devices">By device</ToggleButton>
          <ToggleButton value="hours">By hour</ToggleButton>
        </ToggleButtonGroup>
        <Box sx={{ flex: 1, maxWidth: 340 }}>
          <OnePlace
            label="Add place"
            value={null}
            change={(place) => {
              if (place) setAdded((all) => [...all, place])
            }}
          />
        </Box>
      </Stack>
      <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label="Where test scans lead">
        <Table size="small">
          <TableHead>
            <TableRow>
              <TableCell>Scanned in</TableCell>
              {columns.map(({ name }) => (
                <TableCell key={name}>{name}</TableCell>
              ))}
            </TableRow>
          </TableHead>
          <TableBody>
            {places.map((place) => (
              <TableRow key={keyOf(place)}>
                <TableCell component="th" scope="row" sx={{ whiteSpace: 'nowrap' }}>
                  {nameOf(place)}
                </TableCell>
                {columns.map(({ name, change }) => {
                  const { decision } = rehearse(compiled, { ...given, place, ...change }, now)
                  const lane = ids.indexOf(decision.exit)
                  const leads = leadsWhere(decision)
                  return (
                    <TableCell key={name} sx={{ verticalAlign: 'top', fontSize: '0.75rem', minWidth: 90 }}>
                      <strong>{lane < 0 ? 'otherwise' : `lane ${String(lane + 1)}`}</strong>
                      <br />
                      {decision.kind === 'redirect'
                        ? addressInWords(leads).replace(/^[^/]*/, '') || '/'
                        : leads}
                    </TableCell>
                  )
                })}
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </Box>
    </Stack>
  )
}
