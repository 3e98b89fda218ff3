import { Stack, TextField } from '@mui/material'
import { countryName } from '@flimbo/core/conditions'
import type { KnownPlace } from '@flimbo/core/scans'
import { getAlpha2Codes } from 'i18n-iso-countries'
import type { Editing } from './editing.ts'
import { NumberField, OnePlace, Several, SeveralPlaces } from './fields.tsx'
import { Pick } from './Pick.tsx'

const COUNTRIES = Object.keys(getAlpha2Codes()).sort((a, b) =>
  countryName(a).localeCompare(countryName(b), 'en'),
)

const somewhere = (place: Partial<KnownPlace>): KnownPlace => ({
  country: '',
  region: '',
  city: '',
  latitude: 0,
  longitude: 0,
  ...place,
})

/** Countries by name. */
export function CountryEditor({ leaf, change }: Editing<'country'>) {
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
}

/** Regions that scans come from. */
export function RegionEditor({ leaf, change }: Editing<'region'>) {
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
}

/** Cities that scans come from. */
export function CityEditor({ leaf, change }: Editing<'city'>) {
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
}

/** A circle about a place, searched by name or given in degrees. */
export function NearEditor({ leaf, change }: Editing<'near'>) {
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
}

/** How far from where the piece hangs. */
export function DistanceEditor({ leaf, change }: Editing<'distance'>) {
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
}
