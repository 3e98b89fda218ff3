import { Box, Stack, TextField, Typography } from '@mui/material'
import type { GeoPoint } from '@flimbo/core/fields'
import { useState } from 'react'
import { OnePlace } from '../conditions/index.ts'

const DIGITS = 5
/** A latitude and a longitude, as maps give them to be copied. */
const PAIR = /^\s*(-?\d{1,2}(?:\.\d+)?)\s*[,;\s]\s*(-?\d{1,3}(?:\.\d+)?)\s*$/

function readPair(text: string): GeoPoint | null {
  const [, north = '', east = ''] = PAIR.exec(text) ?? []
  const point = { latitude: Number(north), longitude: Number(east) }
  const isPoint = north !== '' && Math.abs(point.latitude) <= 90 && Math.abs(point.longitude) <= 180
  return isPoint ? point : null
}
const written = (point: GeoPoint | null) =>
  point === null ? '' : `${String(point.latitude)}, ${String(point.longitude)}`

/** A place on earth: the middle of a town, or coordinates as they are copied from a map. */
export function PointField({
  label,
  value,
  change,
}: {
  readonly label: string
  readonly value: GeoPoint | null
  readonly change: (value: GeoPoint | null) => void
}) {
  const [typed, setTyped] = useState<string | null>(null)
  const text = typed ?? written(value)
  const isWrong = typed !== null && typed.trim() !== '' && readPair(typed) === null
  return (
    <Box role="group" aria-label={label}>
      <Typography variant="caption" color="textSecondary">
        {label}
      </Typography>
      <Stack sx={{ gap: 1, mt: 0.5 }}>
        <TextField
          size="small"
          label="Latitude, longitude"
          placeholder="53.5501, 7.2034"
          value={text}
          error={isWrong}
          helperText={isWrong ? 'Write two numbers of degrees: 53.5501, 7.2034.' : 'As copied from a map.'}
          onChange={({ target }) => {
            setTyped(target.value)
            const point = readPair(target.value)
            if (point ?? target.value.trim() === '') change(point)
          }}
          onBlur={() => {
            if (!isWrong) setTyped(null)
          }}
        />
        <OnePlace
          label="Or the middle of a town"
          value={null}
          change={(place) => {
            if (!place) return
            setTyped(null)
            const round = (degrees: number) => Number(degrees.toFixed(DIGITS))
            change({ latitude: round(place.latitude), longitude: round(place.longitude) })
          }}
        />
      </Stack>
    </Box>
  )
}
