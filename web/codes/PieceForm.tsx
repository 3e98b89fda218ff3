import { Button, Stack, Typography } from '@mui/material'
import type { Code } from '@flimbo/core/codes'
import { useEffect, useRef } from 'react'
import { useWatch } from 'react-hook-form'
import { useAnswer } from '../api/index.ts'
import { taggingApi } from '@flimbo/core/tagging'
import { quantity } from '@flimbo/core/formats'
import { Conflict, FormChoice, FormDestination, FormText, Fault } from '../ui/index.ts'
import { OwnFields, PlanFields } from './PlanFields.tsx'
import { SlugHint } from './SlugHint.tsx'
import { TagField } from './TagField.tsx'
import { usePieceForm } from './usePieceForm.ts'

const STATE_NAMES = {
  live: 'Live: scans are sent on',
  paused: 'Paused: a page says so',
  deleted: 'Deleted',
} as const

/** Everything that can be changed of a piece, with one Save. */
export function PieceForm({ code, focusDestination }: { code: Code; focusDestination: number }) {
  const form = usePieceForm(code)
  const { control, isDirty, conflict } = form
  const slug = useWatch({ control, name: 'slug' })
  const rules = useAnswer(taggingApi.rules, {})
  const destinationField = useRef<HTMLInputElement>(null)
  useEffect(() => {
    if (focusDestination > 0) destinationField.current?.select()
  }, [focusDestination])

  return (
    <Stack
      component="form"
      noValidate
      spacing={2}
      onSubmit={(event) => {
        void form.submit(event)
      }}
    >
      <Fault sentence={form.trouble} />
      {conflict && <Conflict {...conflict} keepStored={form.keepStored} overwrite={form.overwrite} />}
      <FormDestination
        control={control}
        name="destination"
        label="Destination"
        multiline
        maxRows={4}
        slotProps={{ htmlInput: { ref: destinationField } }}
        hint={
          code.routeCodes > 1
            ? `Shared: this changes where ${quantity(code.routeCodes, 'code')} of “${code.routeName}” lead`
            : 'Live for the next scan after you save'
        }
      />
      <FormText control={control} name="name" label="Name" />
      <Stack direction="row" spacing={2}>
        <TagField control={control} name="medium" field="medium" label="Medium" />
        <TagField control={control} name="source" field="source" label="Source" />
      </Stack>
      <Stack direction="row" spacing={2}>
        <TagField control={control} name="content" field="content" label="Content" />
        <TagField control={control} name="term" field="term" label="Term" />
      </Stack>
      <OwnFields control={control} rules={rules.data?.value} />
      <FormText
        control={control}
        name="slug"
        label="Short link"
        hint="A printed link goes on working when you change it"
      />
      <SlugHint
        typed={slug}
        campaignId={code.campaignId}
        domainId={code.domainId}
        own={code.slug}
        choose={form.choose}
      />
      <PlanFields control={control} />
      {code.state !== 'deleted' && (
        <FormChoice
          control={control}
          name="state"
          label="State"
          choices={(['live', 'paused'] as const).map((value) => ({ value, label: STATE_NAMES[value] }))}
        />
      )}
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center' }}>
        <Button type="submit" variant="contained" disabled={!isDirty || form.isSaving}>
          Save
        </Button>
        {isDirty ? (
          <Button color="inherit" onClick={form.discard}>
            Discard changes
          </Button>
        ) : (
          <Typography variant="body2" color="textSecondary" role="status">
            Everything is saved.
          </Typography>
        )}
      </Stack>
    </Stack>
  )
}
