import { Dialog, DialogContent, DialogTitle, Stack, Typography } from '@mui/material'
import { campaignCopy, campaignsApi, nextYear, type Campaign } from '@flimbo/core/campaigns'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import { byContract, showFaults, useChange } from '../api/index.ts'
import { quantity } from '@flimbo/core/formats'
import { FormChoice, FormDay, FormText, Fault, DialogButtons } from '../ui/index.ts'

interface Values {
  name: string
  utmCampaign: string
  startsOn: string
  endsOn: string
  pieceDays: 'shift' | 'clear'
}
const FIELDS = ['name', 'utmCampaign', 'startsOn', 'endsOn'] as const
const sent = (values: Values) => ({
  ...values,
  startsOn: values.startsOn || null,
  endsOn: values.endsOn || null,
})

/** The copy as it is offered: a year later. */
function valuesOf(campaign: Campaign): Values {
  const next = nextYear(campaign, new Date().getFullYear())
  return { ...next, startsOn: next.startsOn ?? '', endsOn: next.endsOn ?? '', pieceDays: 'shift' }
}

interface Props {
  campaign: Campaign
  close: () => void
  made: (id: number) => void
}

/** Next year's plan out of this one: the same pieces on copies of their routes, with new short links and the year carried forward. */
export function CopyCampaign({ open, ...props }: Props & { open: boolean }) {
  return (
    <Dialog open={open} onClose={props.close} fullWidth maxWidth="xs" aria-labelledby="copy-title">
      <CopyForm {...props} />
    </Dialog>
  )
}

function CopyForm({ campaign, close, made }: Props) {
  const copy = useChange(campaignsApi.copy)
  const [trouble, setTrouble] = useState<string | null>(null)
  const { control, handleSubmit, setError } = useForm<Values>({
    defaultValues: valuesOf(campaign),
    resolver: byContract(campaignCopy, sent),
  })
  const submit = handleSubmit(async (values) => {
    setTrouble(null)
    try {
      made((await copy.mutateAsync({ params: { id: campaign.id }, body: sent(values) })).id)
    } catch (error) {
      setTrouble(showFaults(error, setError, FIELDS))
    }
  })
  return (
    <>
      <DialogTitle id="copy-title">Duplicate “{campaign.name}”</DialogTitle>
      <DialogContent>
        <Stack spacing={2} sx={{ pt: 1 }}>
          <Fault sentence={trouble} />
          <FormText control={control} name="name" label="Name" autoFocus />
          <FormText control={control} name="utmCampaign" label="Campaign value (utm_campaign)" />
          <Stack direction="row" spacing={2}>
            <FormDay control={control} name="startsOn" label="First day" />
            <FormDay control={control} name="endsOn" label="Last day" />
          </Stack>
          <FormChoice
            control={control}
            name="pieceDays"
            label="Days of the pieces"
            choices={[
              { value: 'shift', label: 'a year later' },
              { value: 'clear', label: 'none yet' },
            ]}
          />
          <Typography variant="body2" color="textSecondary">
            {quantity(campaign.codes, 'piece')} with new short links, on copies of{' '}
            {quantity(campaign.routes, 'route')}. Archived pieces stay behind; scans do too.
          </Typography>
        </Stack>
      </DialogContent>
      <DialogButtons close={close} label="Duplicate" act={submit} isDisabled={copy.isPending} />
    </>
  )
}
