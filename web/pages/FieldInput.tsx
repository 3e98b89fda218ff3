import { FormControlLabel, Skeleton, Switch, TextField } from '@mui/material'
import type { StoredFile } from '@flimbo/core/files'
import {
  fallbacks,
  type Field,
  type Localised,
  type RichText,
  type WeekHours,
  type GeoPoint,
} from '@flimbo/core/fields'
import type { Question } from '@flimbo/core/forms'
import { lazy, Suspense } from 'react'
import { Pick } from '../conditions/index.ts'
import { DayField, MomentField } from '../ui/index.ts'
import { FileField } from './FileField.tsx'
import { HoursField } from './HoursField.tsx'
import { ListField } from './ListField.tsx'
import { NumberInput } from './NumberInput.tsx'
import { PagePick } from './PagePick.tsx'
import { PointField } from './PointField.tsx'

// Only forms have questions.
const QuestionsField = lazy(async () => ({ default: (await import('./QuestionsField.tsx')).QuestionsField }))
// The editor of texts is large, and most parts have none.
const RichEditor = lazy(async () => ({ default: (await import('../richText/index.ts')).RichEditor }))

/** What fields of a page are edited by, in one of its languages. */
export interface Editing {
  readonly language: string
  readonly languages: readonly string[]
  /** What is wrong with a field, by its path within the part. */
  readonly faultAt: (path: string) => string | undefined
  readonly fileOf: (key: string) => StoredFile | undefined
  readonly learn: (file: StoredFile) => void
}

interface Props {
  readonly field: Field
  readonly value: unknown
  readonly path: string
  readonly editing: Editing
  readonly change: (value: unknown) => void
}

/** One field of a part, as its kind is entered. */
export function FieldInput({ field, value, path, editing, change }: Props) {
  const { language, languages, faultAt } = editing
  const fault = faultAt(path)
  switch (field.type) {
    case 'words': {
      const all = value as Localised<string>
      const instead = fallbacks(language, languages)
        .map((each) => all[each])
        .find((each) => each !== undefined && each !== '')
      return (
        <TextField
          size="small"
          fullWidth
          label={field.label}
          value={all[language] ?? ''}
          placeholder={instead ?? ''}
          multiline={field.isMultiline}
          minRows={field.isMultiline ? 2 : undefined}
          error={fault !== undefined}
          helperText={fault ?? field.help}
          slotProps={{ htmlInput: { maxLength: field.max, lang: language, dir: 'auto' } }}
          onChange={({ target }) => {
            change({ ...all, [language]: target.value })
          }}
        />
      )
    }
    case 'rich': {
      const all = value as Localised<RichText>
      return (
        <Suspense fallback={<Skeleton variant="rounded" height={160} />}>
          <RichEditor
            key={language}
            label={field.label}
            value={all[language] ?? []}
            help={field.help}
            fault={fault}
            change={(text) => {
              change({ ...all, [language]: text })
            }}
          />
        </Suspense>
      )
    }
    case 'file': {
      const all = value as Localised<string>
      const instead = fallbacks(language, languages)
        .map((each) => all[each] ?? '')
        .find((key) => key !== '')
      return (
        <FileField
          label={field.label}
          takes={field.takes}
          file={editing.fileOf(all[language] ?? '')}
          instead={editing.fileOf(instead ?? '')}
          help={field.help}
          fault={fault}
          take={(file) => {
            if (file) editing.learn(file)
            change({ ...all, [language]: file?.key ?? '' })
          }}
        />
      )
    }
    case 'text':
    case 'address':
      return (
        <TextField
          size="small"
          fullWidth
          label={field.label}
          value={value}
          placeholder={field.type === 'address' ? 'https://' : ''}
          error={fault !== undefined}
          helperText={fault ?? field.help}
          slotProps={{ htmlInput: { dir: field.type === 'address' ? 'ltr' : 'auto' } }}
          onChange={({ target }) => {
            change(target.value)
          }}
        />
      )
    case 'choice':
      return <Pick label={field.label} value={String(value)} choices={field.choices} change={change} />
    case 'toggle':
      return (
        <FormControlLabel
          label={field.label}
          slotProps={{ typography: { variant: 'body2' } }}
          control={
            <Switch
              size="small"
              checked={value === true}
              onChange={(_event, isOn) => {
                change(isOn)
              }}
            />
          }
        />
      )
    case 'moment':
      return <MomentField label={field.label} value={String(value)} fault={fault} change={change} />
    case 'hours':
      return <HoursField value={value as WeekHours} fault={fault} change={change} />
    case 'point':
      return <PointField label={field.label} value={value as GeoPoint | null} change={change} />
    case 'number':
      return (
        <NumberInput
          label={field.label}
          help={field.help}
          value={value as number | null}
          fault={fault}
          change={change}
        />
      )
    case 'day':
      return (
        <DayField label={field.label} value={String(value)} fault={fault} hint={field.help} change={change} />
      )
    case 'page':
      return <PagePick label={field.label} value={value as number | null} fault={fault} change={change} />
    case 'key':
      return null
    case 'kinds':
      return (
        <Suspense fallback={<Skeleton variant="rounded" height={200} />}>
          <QuestionsField
            questions={value as readonly Question[]}
            path={path}
            editing={editing}
            change={change}
          />
        </Suspense>
      )
    case 'list':
      return (
        <ListField
          field={field}
          rows={value as readonly Readonly<Record<string, unknown>>[]}
          path={path}
          editing={editing}
          change={change}
        />
      )
  }
}
