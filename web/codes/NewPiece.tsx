import { Button, Collapse, Stack, Typography } from '@mui/material'
import { RouteChoice } from '../routing/index.ts'
import { FormDestination, FormText, Inspector, Fault } from '../ui/index.ts'
import { FinalAddress } from './FinalAddress.tsx'
import { OwnFields, PlanFields } from './PlanFields.tsx'
import { SlugHint } from './SlugHint.tsx'
import { TagField } from './TagField.tsx'
import { OWN, useNewPiece } from './useNewPiece.ts'

/** One form with a destination and a name makes a route with one code; or, as a series, a numbered lot of them on one route. */
export function NewPiece({
  series,
  close,
  made,
}: {
  series: boolean
  close: () => void
  made: (id: number) => void
}) {
  const form = useNewPiece({ isSeries: series, close, made })
  return (
    <Inspector title={series ? 'New numbered series' : 'New piece'} close={close}>
      <Stack
        component="form"
        noValidate
        spacing={2}
        onSubmit={(event) => {
          void form.submit(event)
        }}
      >
        <Fault sentence={form.trouble} />
        {series && (
          <>
            <Typography variant="body2" color="textSecondary">
              Write {'{n}'} where the number goes, in any text: the name “Table card {'{n}'}” makes Table card
              001, 002 and so on. All lead to one place, each with a short link of its own.
            </Typography>
            <Stack direction="row" spacing={2}>
              <FormText control={form.control} name="from" label="From" />
              <FormText control={form.control} name="to" label="To" />
              <FormText control={form.control} name="digits" label="Digits" />
            </Stack>
          </>
        )}
        <FormText
          control={form.control}
          name="name"
          label={series ? 'Name of the pieces' : 'Name of the piece'}
          autoFocus
          hint={series ? 'Table card {n}' : 'What it is and where it goes: Pier poster, east gate'}
        />
        <Stack direction="row" spacing={2}>
          <TagField
            control={form.control}
            name="medium"
            field="medium"
            label="Medium"
            hint="The broadest: print"
          />
          <TagField
            control={form.control}
            name="source"
            field="source"
            label="Source"
            hint="Which kind: pier-poster"
          />
        </Stack>
        <Typography variant="body2" color="textSecondary">
          Campaign:{' '}
          <Typography component="span" variant="mono">
            {form.campaign.utmCampaign}
          </Typography>
        </Typography>
        <OwnFields control={form.control} rules={form.rules} />
        {form.routes.length > 0 && (
          <RouteChoice
            label="Leads"
            none={series ? 'to an address of their own' : 'to an address of its own'}
            routes={form.routes}
            value={form.values.route === OWN ? null : Number(form.values.route)}
            change={(id) => {
              form.choose('route', id === null ? OWN : String(id))
            }}
          />
        )}
        {form.values.route === OWN && (
          <FormDestination
            control={form.control}
            name="destination"
            label="Destination"
            hint="You can change it for ever, even after printing"
          />
        )}
        {form.tagged && (
          <div>
            <Typography variant="body2" color="textSecondary">
              A scan will end at
            </Typography>
            <FinalAddress
              code={{
                finalAddress: form.tagged.address,
                clashes: [...form.tagged.clashes],
                extra: form.values.extra,
              }}
            />
          </div>
        )}
        <Button
          color="inherit"
          onClick={() => {
            form.setMore(!form.more)
          }}
          aria-expanded={form.more}
          sx={{ alignSelf: 'flex-start' }}
        >
          {form.more ? 'Fewer fields' : 'More: content, term, short link, print, place, cost'}
        </Button>
        <Collapse in={form.more} unmountOnExit>
          <SeldomFields form={form} isSeries={series} />
        </Collapse>
        <Button type="submit" variant="contained" size="medium" disabled={form.isSending}>
          {series ? 'Add series' : 'Add piece'}
        </Button>
      </Stack>
    </Inspector>
  )
}

/** What few pieces need from the start. */
function SeldomFields({ form, isSeries }: { form: ReturnType<typeof useNewPiece>; isSeries: boolean }) {
  return (
    <Stack spacing={2}>
      <Stack direction="row" spacing={2}>
        <TagField control={form.control} name="content" field="content" label="Content" />
        <TagField control={form.control} name="term" field="term" label="Term" />
      </Stack>
      <FormText
        control={form.control}
        name="slug"
        label="Short link"
        hint={
          isSeries
            ? 'Such as CARD-{n}; left empty, Flimbo chooses them'
            : 'Left empty, Flimbo chooses one without look-alike characters'
        }
      />
      {!isSeries && (
        <SlugHint
          typed={form.values.slug}
          campaignId={form.campaign.id}
          choose={(chosen) => {
            form.choose('slug', chosen)
          }}
        />
      )}
      <PlanFields control={form.control} />
    </Stack>
  )
}
