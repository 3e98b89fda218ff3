import { Stack } from '@mui/material'
import type { HouseRules } from '@flimbo/core/tagging'
import type { Control, FieldValues, Path } from 'react-hook-form'
import { FormChoice, FormDay, FormText } from '../ui/index.ts'
import { LEVELS } from '@flimbo/core/symbol'

const LEVEL_NAMES = { L: 'L: 7 % can be lost', M: 'M: 15 %', Q: 'Q: 25 %', H: 'H: 30 %' } as const

/** Everything the media plan says of a piece beside its tags: the print, the place, the time, the money. */
export function PlanFields<Values extends FieldValues>({ control }: { control: Control<Values> }) {
  const at = (name: string) => name as Path<Values>
  return (
    <Stack spacing={2}>
      <Stack direction="row" spacing={2}>
        <FormText control={control} name={at('sizeMm')} label="Printed size, mm" />
        <FormText control={control} name={at('viewingM')} label="Scanned from, m" />
      </Stack>
      <FormChoice
        control={control}
        name={at('level')}
        label="Error correction"
        choices={LEVELS.map((value) => ({ value, label: LEVEL_NAMES[value] }))}
      />
      <FormText control={control} name={at('place')} label="Place" hint="Where it hangs or lies" />
      <Stack direction="row" spacing={2}>
        <FormText control={control} name={at('latitude')} label="Latitude" />
        <FormText control={control} name={at('longitude')} label="Longitude" />
      </Stack>
      <Stack direction="row" spacing={2}>
        <FormText control={control} name={at('printRun')} label="Print run" />
        <FormText control={control} name={at('cost')} label="Cost" />
      </Stack>
      <Stack direction="row" spacing={2}>
        <FormDay control={control} name={at('liveOn')} label="Goes live" />
        <FormDay control={control} name={at('downOn')} label="Comes down" />
      </Stack>
      <Stack direction="row" spacing={2}>
        <FormText control={control} name={at('reference')} label="Client’s reference" />
        <FormText control={control} name={at('key')} label="Key" hint="What imports know it by" />
      </Stack>
      <FormText control={control} name={at('note')} label="Note" multiline maxRows={4} />
    </Stack>
  )
}

/** A field for each parameter of the workspace’s own. */
export function OwnFields<Values extends FieldValues>({
  control,
  rules,
}: {
  control: Control<Values>
  rules: HouseRules | undefined
}) {
  return (rules?.parameters ?? []).map(({ name, label, required }) => (
    <FormText
      key={name}
      control={control}
      name={`extra.${name}` as Path<Values>}
      label={`${label} (${name})${required ? '' : ', if any'}`}
    />
  ))
}
