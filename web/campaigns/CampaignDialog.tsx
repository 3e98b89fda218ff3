import { Alert, Button, Dialog, DialogActions, DialogContent, DialogTitle, Stack } from '@mui/material'
import { campaignChange, campaignsApi, newCampaign, type Campaign } from '@flimbo/core/campaigns'
import { useEffect, useState } from 'react'
import { useForm, useWatch } from 'react-hook-form'
import { useNavigate } from 'react-router'
import { domainsApi } from '@flimbo/core/domains'
import { byContract, newerOf, showFaults, useAnswer, useChange } from '../api/index.ts'
import { FormChoice, FormDay, FormText } from '../ui/index.ts'
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
const USUAL = 'usual'

/** What is sent: a day that is left empty is no day. */
const sent = ({ domain, ...values }: Values) => ({
  ...values,
  startsOn: values.startsOn || null,
  endsOn: values.endsOn || null,
  domainId: domain === USUAL ? null : Number(domain),
})

/** A campaign value from a name: small letters, dashes. */
function suggestion(name: string): string {
  return name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
}

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
  const [version, setVersion] = useState(campaign?.version ?? 0)
  const domains = useAnswer(domainsApi.list, {})
  const create = useChange(campaignsApi.create)
  const change = useChange(campaignsApi.change)
  const { control, handleSubmit, setError, setValue, formState } = useForm<Values>({
    defaultValues: valuesOf(campaign, workspace.zone),
    resolver: byContract(campaign ? campaignChange : newCampaign, (values) => ({
      ...sent(values),
      ...(campaign ? { version } : {}),
    })),
  })

  // Follows the name letter by letter, so that it is there when Enter is pressed; what somebody writes themselves stays.
  const name = useWatch({ control, name: 'name' })
  const isOwn = formState.dirtyFields.utmCampaign === true
  useEffect(() => {
    if (!campaign && !isOwn) setValue('utmCampaign', suggestion(name))
  }, [name, isOwn, campaign, setValue])

  const submit = handleSubmit(async (values) => {
    setTrouble(null)
    try {
      if (campaign)
        await change.mutateAsync({ params: { id: campaign.id }, body: { ...sent(values), version } })
      else {
        const made = await create.mutateAsync({ body: sent(values) })
        void navigate(`/campaigns/${String(made.id)}/plan`)
      }
      close()
    } catch (error) {
      const newer = newerOf<Campaign>(error)
      if (newer) {
        const { version: stored, name: called, utmCampaign } = newer.current
        setVersion(stored)
        setTrouble(
          `Someone saved this campaign after you opened it: it is now called “${called}” with the campaign value “${utmCampaign}”. Nothing was overwritten. Save again to put yours in its place, or cancel to keep theirs.`,
        )
      } else setTrouble(showFaults(error, setError, FIELDS))
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
          {trouble !== null && (
            <Alert severity="error" variant="outlined">
              {trouble}
            </Alert>
          )}
          <FormText control={control} name="name" label="Name" autoFocus />
          <FormText
            control={control}
            name="utmCampaign"
            label="Campaign value (utm_campaign)"
            hint="The same on every piece of the campaign"
          />
          <FormZone control={control} name="zone" hint="Days and hours of this campaign are read in it" />
          <Stack direction="row" spacing={2}>
            <FormDay control={control} name="startsOn" label="First day" />
            <FormDay control={control} name="endsOn" label="Last day" />
          </Stack>
          {(domains.data?.rows.length ?? 0) > 1 && (
            <FormChoice
              control={control}
              name="domain"
              label="New short links are on"
              hint="Links that are issued stay where they are"
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
