import { MomentField } from '../ui/index.ts'
import { WEEKDAYS } from '@flimbo/core/time'
import { MenuItem, Stack, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { CODE_FIELDS, countryName, languageName, type Leaf } from '@flimbo/core/conditions'
import { DEVICE_TYPES, type KnownPlace } from '@flimbo/core/scans'
import { getAlpha2Codes } from 'i18n-iso-countries'
import { NumberField, OnePlace, Several, SeveralPlaces, ZoneField } from './fields.tsx'
import { BROWSERS, LANGUAGES, SYSTEMS } from './kinds.ts'

const COUNTRIES = Object.keys(getAlpha2Codes()).sort((a, b) =>
  countryName(a).localeCompare(countryName(b), 'en'),
)
const FIELD_NAMES = {
  medium: 'Medium',
  source: 'Source',
  content: 'Content',
  label: 'Name of the piece',
} as const

const somewhere = (place: Partial<KnownPlace>): KnownPlace => ({
  country: '',
  region: '',
  city: '',
  latitude: 0,
  longitude: 0,
  ...place,
})

/** The fields of one condition. */
export function LeafEditor({ leaf, change }: { leaf: Leaf; change: (leaf: Leaf) => void }) {
  switch (leaf.kind) {
    case 'country':
      return (
        <Several
          label="Countries"
          values={leaf.in}
          options={COUNTRIES}
          nameOf={countryName}
          change={(values) => {
            change({ ...leaf, in: values })
          }}
        />
      )
    case 'region':
      return (
        <SeveralPlaces
          label="Regions"
          kind="region"
          values={leaf.in.map(somewhere)}
          change={(places) => {
            change({ ...leaf, in: places.map(({ country, region }) => ({ country, region })) })
          }}
        />
      )
    case 'city':
      return (
        <SeveralPlaces
          label="Cities"
          kind="city"
          values={leaf.in.map(somewhere)}
          change={(places) => {
            change({ ...leaf, in: places.map(({ country, city }) => ({ country, city })) })
          }}
        />
      )
    case 'near':
      return (
        <Stack sx={{ gap: 1 }}>
          <OnePlace
            label="Search a city"
            value={null}
            change={(place) => {
              if (place)
                change({ ...leaf, name: place.city, latitude: place.latitude, longitude: place.longitude })
            }}
          />
          <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
            <TextField
              size="small"
              label="Place"
              value={leaf.name}
              onChange={({ target }) => {
                change({ ...leaf, name: target.value })
              }}
              sx={{ flex: 1, minWidth: 120 }}
            />
            <NumberField
              label="Within km"
              value={leaf.km}
              change={(km) => {
                change({ ...leaf, km: km ?? Number.NaN })
              }}
              width={100}
            />
          </Stack>
          <Stack direction="row" sx={{ gap: 1 }}>
            <NumberField
              label="Latitude"
              value={leaf.latitude}
              change={(latitude) => {
                change({ ...leaf, latitude: latitude ?? Number.NaN })
              }}
            />
            <NumberField
              label="Longitude"
              value={leaf.longitude}
              change={(longitude) => {
                change({ ...leaf, longitude: longitude ?? Number.NaN })
              }}
            />
          </Stack>
        </Stack>
      )
    case 'distance':
      return (
        <Stack direction="row" sx={{ gap: 1 }}>
          <Pick
            label="The scan is"
            value={leaf.beyond ? 'beyond' : 'within'}
            choices={[
              ['within', 'within'],
              ['beyond', 'further than'],
            ]}
            change={(value) => {
              change({ ...leaf, beyond: value === 'beyond' })
            }}
          />
          <NumberField
            label="km"
            value={leaf.km}
            change={(km) => {
              change({ ...leaf, km: km ?? Number.NaN })
            }}
            width={90}
          />
        </Stack>
      )
    case 'device':
      return (
        <Several
          label="Devices"
          values={leaf.in}
          options={DEVICE_TYPES}
          change={(values) => {
            change({ ...leaf, in: values as typeof leaf.in })
          }}
        />
      )
    case 'system':
      return (
        <Stack direction="row" sx={{ gap: 1 }}>
          <Pick
            label="System"
            value={leaf.is}
            choices={[...new Set([...SYSTEMS, leaf.is])].map((name) => [name, name])}
            change={(is) => {
              change({ ...leaf, is })
            }}
          />
          <TextField
            size="small"
            label="From version"
            value={leaf.from}
            onChange={({ target }) => {
              change({ ...leaf, from: target.value.trim() })
            }}
            sx={{ width: 110 }}
          />
          <TextField
            size="small"
            label="Up to"
            value={leaf.upTo}
            onChange={({ target }) => {
              change({ ...leaf, upTo: target.value.trim() })
            }}
            sx={{ width: 90 }}
          />
        </Stack>
      )
    case 'browser':
      return (
        <Several
          label="Browsers"
          values={leaf.in}
          options={BROWSERS}
          free
          change={(values) => {
            change({ ...leaf, in: values })
          }}
        />
      )
    case 'language':
      return (
        <Several
          label="Languages"
          values={leaf.in}
          options={LANGUAGES}
          nameOf={(tag) => (/^[a-z]{2,3}(-|$)/i.test(tag) ? `${languageName(tag)} (${tag})` : tag)}
          change={(values) => {
            change({ ...leaf, in: values })
          }}
        />
      )
    case 'window':
      return (
        <Stack sx={{ gap: 1 }}>
          <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
            <MomentField
              label="From"
              value={leaf.from}
              change={(from) => {
                change({ ...leaf, from })
              }}
            />
            <MomentField
              label="Until"
              value={leaf.upTo}
              change={(upTo) => {
                change({ ...leaf, upTo })
              }}
            />
          </Stack>
          <ZoneField
            value={leaf.zone}
            change={(zone) => {
              change({ ...leaf, zone })
            }}
          />
        </Stack>
      )
    case 'hours':
      return (
        <Stack sx={{ gap: 1 }}>
          <ToggleButtonGroup
            size="small"
            value={leaf.days}
            aria-label="Days"
            onChange={(_event, days: number[]) => {
              change({ ...leaf, days: [...days].sort((a, b) => a - b) })
            }}
          >
            {WEEKDAYS.map((day, i) => (
              <ToggleButton key={day} value={i + 1} aria-label={day} sx={{ px: 1 }}>
                {day.slice(0, 2)}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          <Stack direction="row" sx={{ gap: 1 }}>
            <TextField
              size="small"
              type="time"
              label="From"
              value={leaf.from}
              onChange={({ target }) => {
                change({ ...leaf, from: target.value.slice(0, 5) })
              }}
              slotProps={{ inputLabel: { shrink: true } }}
            />
            <TextField
              size="small"
              type="time"
              label="Until"
              value={leaf.upTo}
              onChange={({ target }) => {
                change({ ...leaf, upTo: target.value.slice(0, 5) })
              }}
              slotProps={{ inputLabel: { shrink: true } }}
            />
          </Stack>
          {leaf.upTo <= leaf.from && (
            <Typography variant="caption" color="textSecondary">
              {leaf.upTo === leaf.from
                ? 'The whole day.'
                : 'Over midnight; each night belongs to the day it begins on.'}
            </Typography>
          )}
          <ZoneField
            value={leaf.zone}
            change={(zone) => {
              change({ ...leaf, zone })
            }}
          />
        </Stack>
      )
    case 'visit':
      return (
        <Pick
          label="The scan is"
          value={leaf.is}
          choices={[
            ['first', 'the visitor’s first of the day'],
            ['repeat', 'another one on the same day'],
          ]}
          change={(is) => {
            change({ ...leaf, is: is === 'repeat' ? 'repeat' : 'first' })
          }}
        />
      )
    case 'code':
      return (
        <Stack sx={{ gap: 1 }}>
          <Pick
            label="Field"
            value={leaf.field}
            choices={CODE_FIELDS.map((field) => [field, FIELD_NAMES[field]])}
            change={(field) => {
              change({ ...leaf, field: field as typeof leaf.field })
            }}
          />
          <Several
            label="Is one of"
            values={leaf.in}
            options={[]}
            free
            change={(values) => {
              change({ ...leaf, in: values })
            }}
          />
        </Stack>
      )
    case 'query':
      return (
        <Stack sx={{ gap: 1 }}>
          <TextField
            size="small"
            label="Name of the value"
            value={leaf.name}
            onChange={({ target }) => {
              change({ ...leaf, name: target.value })
            }}
          />
          <Several
            label="Is one of (empty for any)"
            values={leaf.in}
            options={[]}
            free
            change={(values) => {
              change({ ...leaf, in: values })
            }}
          />
        </Stack>
      )
  }
}

/** A choice among a few. */
export function Pick({
  label,
  value,
  choices,
  change,
}: {
  label: string
  value: string
  choices: readonly (readonly [value: string, name: string])[]
  change: (value: string) => void
}) {
  return (
    <TextField
      select
      size="small"
      label={label}
      value={value}
      onChange={({ target }) => {
        change(target.value)
      }}
      sx={{ minWidth: 130 }}
    >
      {choices.map(([each, name]) => (
        <MenuItem key={each} value={each}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  )
}
