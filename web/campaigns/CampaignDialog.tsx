import { Button, Dialog, DialogActions, DialogContent, DialogTitle, Stack } from '@mui/material'
import { campaignChange, campaignsApi, newCampaign, type Campaign } from '@flimbo/core/campaigns'
import { useEffect, useState } from 'react'
import { useForm, useWatch } from 'react-hook-form'
import { useNavigate } from 'react-router'
import { domainsApi } from '@flimbo/core/domains'
import { plainName } from '@flimbo/core/tagging'
import { byContract, showFaults, useAnswer, useChange, useVersion } from '../api/index.ts'
import { Conflict, disagreements, FormChoice, FormDay, FormText, Fault } from '../ui/index.ts'
import { useSession } from '../session/index.ts'
import { FormZone } from '../workspace/index.ts'

interface Values {
  name: string
  utmCampaign: string
  zone: string
  startsOn: string
  endsOn: string
  domain: string
}
const FIELDS = ['name', 'utmCampaign', 'zone', 'startsOn', 'endsOn'] as const
const NAMES = {
  name: 'Name',
  utmCampaign: 'Campaign value',
  zone: 'Time zone',
  startsOn: 'First day',
  endsOn: 'Last day',
} as const
const USUAL = 'usual'

/** What is sent: a day that is left empty is no day. */
const sent = ({ domain, ...values }: Values) => ({
  ...values,
  startsOn: values.startsOn || null,
  endsOn: values.endsOn || null,
  domainId: domain === USUAL ? null : Number(domain),
})

const valuesOf = (campaign: Campaign | undefined, zone: string): Values => ({
  name: campaign?.name ?? '',
  utmCampaign: campaign?.utmCampaign ?? '',
  zone: campaign?.zone ?? zone,
  startsOn: campaign?.startsOn ?? '',
  endsOn: campaign?.endsOn ?? '',
  domain: campaign?.domainId ? String(campaign.domainId) : USUAL,
})

interface Props {
  close: () => void
  campaign?: Campaign | undefined
}

/** Begins a campaign, or changes one that is there. */
export function CampaignDialog({ open, ...props }: Props & { open: boolean }) {
  return (
    <Dialog open={open} onClose={props.close} fullWidth maxWidth="xs" aria-labelledby="campaign-title">
      <CampaignForm {...props} />
    </Dialog>
  )
}

/** What it is filled with when it opens stays: a live update must not take away what is being typed. */
function CampaignForm({ close, campaign }: Props) {
  const { workspace } = useSession()
  const navigate = useNavigate()
  const [trouble, setTrouble] = useState<string | null>(null)
  // From the version the dialog was opened with, whatever comes live meanwhile.
  const version = useVersion<Campaign>(campaign?.version ?? 0, true)
  const domains = useAnswer(domainsApi.list, {})
  const create = useChange(campaignsApi.create)
  const change = useChange(campaignsApi.change)
  const { control, handleSubmit, setError, setValue, getValues, formState } = useForm<Values>({
    defaultValues: valuesOf(campaign, workspace.zone),
    resolver: byContract(campaign ? campaignChange : newCampaign, (values) => ({
      ...sent(values),
      ...(campaign ? { version: version.current() } : {}),
    })),
  })

  // Follows the name letter by letter, so that it is there when Enter is pressed; what somebody writes themselves stays.
  const name = useWatch({ control, name: 'name' })
  const isOwn = formState.dirtyFields.utmCampaign === true
  useEffect(() => {
    if (!campaign && !isOwn) setValue('utmCampaign', plainName(name))
  }, [name, isOwn, campaign, setValue])

  const submit = handleSubmit(async (values) => {
    setTrouble(null)
    try {
      if (campaign) {
        const saved = await version.save((from) =>
          change.mutateAsync({ params: { id: campaign.id }, body: { ...sent(values), version: from } }),
        )
        if (saved === null) return
      } else {
        const made = await create.mutateAsync({ body: sent(values) })
        void navigate(`/campaigns/${String(made.id)}/plan`)
      }
      close()
    } catch (error) {
      setTrouble(showFaults(error, setError, FIELDS))
    }
  })

  return (
    <form
      noValidate
      onSubmit={(event) => {
        void submit(event)
      }}
    >
      <DialogTitle id="campaign-title">{campaign ? 'Campaign settings' : 'New campaign'}</DialogTitle>
      <DialogContent>
        <Stack spacing={2} sx={{ pt: 1 }}>
          <Fault sentence={trouble} />
          {version.newer !== null && (
            <Conflict
              what="campaign"
              rows={disagreements(getValues(), valuesOf(version.newer, workspace.zone), NAMES)}
              keepStored={close}
              overwrite={() => {
                version.rebase()
                void submit()
              }}
            />
          )}
          <FormText control={control} name="name" label="Name" autoFocus />
          <FormText
            control={control}
            name="utmCampaign"
            label="Campaign value (utm_campaign)"
            hint="The same on every piece of the campaign"
          />
          <FormZone control={control} name="zone" hint="Days and times of this campaign are in this zone" />
          <Stack direction="row" spacing={2}>
            <FormDay control={control} name="startsOn" label="First day" />
            <FormDay control={control} name="endsOn" label="Last day" />
          </Stack>
          {(domains.data?.rows.length ?? 0) > 1 && (
            <FormChoice
              control={control}
              name="domain"
              label="New short links are on"
              hint="Existing links stay where they are"
              choices={[
                { value: USUAL, label: 'Default: the client’s domain' },
                ...(domains.data?.rows ?? [])
                  .filter(({ state }) => state === 'ready')
                  .map(({ id, host }) => ({ value: String(id), label: host })),
              ]}
            />
          )}
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={close} color="inherit">
          Cancel
        </Button>
        <Button type="submit" variant="contained" disabled={create.isPending || change.isPending}>
          {campaign ? 'Save' : 'Create'}
        </Button>
      </DialogActions>
    </form>
  )
}
