import { Checkbox, FormControlLabel, MenuItem, Stack, TextField } from '@mui/material'
import {
  CONTENT_KINDS,
  CONTENT_WORDS,
  type Content,
  type ContentCosts,
  type ContentFault,
} from '@flimbo/core/contents'
import { useState } from 'react'
import { MomentField } from '../ui/index.ts'
import { FORMS, type Field } from './fields.ts'

interface Props {
  readonly content: Content
  readonly faults: readonly ContentFault[]
  readonly costs: ContentCosts
  readonly setKind: (kind: Content['kind']) => void
  readonly set: (content: Content) => void
}

/** What a static code carries, field by field: what each is for, what is wrong with it, and what it takes. */
export function ContentForm({ content, faults, costs, setKind, set }: Props) {
  const form = FORMS[content.kind]
  const values = content as unknown as Readonly<Record<string, unknown>>
  return (
    <Stack sx={{ gap: 1.5, pt: 1 }}>
      <TextField
        select
        size="small"
        label="Kind"
        value={content.kind}
        helperText={form.does}
        onChange={(event) => {
          setKind(event.target.value as Content['kind'])
        }}
      >
        {CONTENT_KINDS.map((kind) => (
          <MenuItem key={kind} value={kind}>
            {CONTENT_WORDS[kind]}
          </MenuItem>
        ))}
      </TextField>
      {form.fields.map((field) => {
        const cost = costs.fields.find((each) => each.field === field.name)
        const fault = faults.find((each) => each.field === field.name)?.sentence
        return (
          <ContentField
            key={`${content.kind} ${field.name}`}
            field={field}
            value={values[field.name]}
            fault={fault}
            hint={[field.hint, cost && costWords(cost)].filter(Boolean).join('. ')}
            set={(value) => {
              // A field of this kind, with a value as its form gives it: the schema looks it over before it is stored.
              set({ ...content, [field.name]: value })
            }}
          />
        )
      })}
    </Stack>
  )
}

/** What a field that may be left out takes: "12 bytes, 4 modules a side". */
function costWords({ bytes, modules }: ContentCosts['fields'][number]): string {
  const size = modules !== null && modules > 0 ? `, and makes it ${String(modules)} modules wider` : ''
  return `Takes ${String(bytes)} bytes${size}`
}

interface FieldProps {
  readonly field: Field
  readonly value: unknown
  readonly fault: string | undefined
  readonly hint: string
  readonly set: (value: unknown) => void
}

function ContentField({ field, value, fault, hint, set }: FieldProps) {
  const { label, as, name } = field
  if (as === 'check')
    return (
      <FormControlLabel
        label={field.hint ? `${label}: ${field.hint.toLowerCase()}` : label}
        control={
          <Checkbox
            size="small"
            checked={value === true}
            onChange={(event) => {
              set(event.target.checked)
            }}
          />
        }
      />
    )
  if (as === 'moment')
    return (
      <MomentField
        label={label}
        name={name}
        value={String(value)}
        change={(moment) => {
          if (moment !== '') set(moment)
        }}
        fault={fault}
      />
    )
  if (as === 'choice')
    return (
      <TextField
        select
        size="small"
        label={label}
        value={String(value)}
        onChange={(event) => {
          set(event.target.value)
        }}
      >
        {(field.choices ?? []).map((choice) => (
          <MenuItem key={choice.value} value={choice.value}>
            {choice.words}
          </MenuItem>
        ))}
      </TextField>
    )
  if (as === 'degrees' || as === 'money')
    return <FigureField key={name} as={as} label={label} value={value} fault={fault} hint={hint} set={set} />
  return (
    <TextField
      size="small"
      label={label}
      value={String(value)}
      multiline={as === 'lines'}
      minRows={as === 'lines' ? 2 : undefined}
      error={fault !== undefined}
      helperText={fault ?? hint}
      onChange={(event) => {
        set(event.target.value)
      }}
    />
  )
}

/** A number as it is typed: degrees, or an amount of money that is kept in cents. */
function FigureField({
  as,
  label,
  value,
  fault,
  hint,
  set,
}: Omit<FieldProps, 'field'> & { as: 'degrees' | 'money'; label: string }) {
  const written = figureText(as, value)
  const [typed, setTyped] = useState<string | null>(null)
  const text = typed ?? written
  const read = figureIn(as, text)
  return (
    <TextField
      size="small"
      label={label}
      value={text}
      error={fault !== undefined || read === undefined}
      helperText={read === undefined ? 'Write a number, such as 53.70.' : (fault ?? hint)}
      onChange={(event) => {
        setTyped(event.target.value)
        const next = figureIn(as, event.target.value)
        if (next !== undefined) set(next)
      }}
      onBlur={() => {
        if (read !== undefined) setTyped(null)
      }}
      slotProps={{ htmlInput: { inputMode: 'decimal' } }}
    />
  )
}

function figureText(as: 'degrees' | 'money', value: unknown): string {
  if (typeof value !== 'number') return ''
  return as === 'money' ? (value / 100).toFixed(2) : String(value)
}

/** What was typed: a number, null for nothing where that may be, undefined where it is no number. */
export function figureIn(as: 'degrees' | 'money', text: string): number | null | undefined {
  const plain = text.trim().replace(',', '.')
  if (plain === '') return as === 'money' ? null : undefined
  const value = Number(plain)
  if (!Number.isFinite(value)) return undefined
  return as === 'money' ? Math.round(value * 100) : value
}
