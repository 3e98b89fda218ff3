import { Stack, TextField } from '@mui/material'
import { languageName } from '@flimbo/core/conditions'
import { DEVICE_TYPES } from '@flimbo/core/scans'
import type { Editing } from './editing.ts'
import { Several } from './fields.tsx'
import { BROWSERS, LANGUAGES, SYSTEMS } from './kinds.ts'
import { Pick } from './Pick.tsx'

/** Kinds of devices. */
export function DeviceEditor({ leaf, change }: Editing<'device'>) {
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
}

/** An operating system, and its versions. */
export function SystemEditor({ leaf, change }: Editing<'system'>) {
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
}

/** Browsers, others too. */
export function BrowserEditor({ leaf, change }: Editing<'browser'>) {
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
}

/** Languages, as a browser asks for them. */
export function LanguageEditor({ leaf, change }: Editing<'language'>) {
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
}
