import type { Campaign } from '@flimbo/core/campaigns'
import { filterEntries } from '@flimbo/core/dimensions'
import { daysOf, readView, writeView, type QuestionView, type SavedValue } from '@flimbo/core/results'
import type { Of } from '@flimbo/core/scans'
import { useMemo } from 'react'
import { useSearchParams } from 'react-router'
import { useCampaignIfAny } from '../campaigns/index.ts'
import { useSession } from '../session/index.ts'
import { useNow } from '../ui/index.ts'

/** Whose results a screen shows. */
export interface ResultsOf {
  readonly of: Of
  readonly zone: string
  /** Null where it is of more than one campaign. */
  readonly campaign: Campaign | null
}

/** All that the address of the screen says, and how to say something else. */
export interface AskedResults extends ResultsOf {
  readonly view: QuestionView
  readonly from: string
  readonly to: string
  /** Whether some of the scans are left out. */
  readonly isNarrowed: boolean
  /** Asks something else. */
  readonly ask: (change: Partial<QuestionView>) => void
  /** Shows the results of something else, by what its name in the address is; null for what is not named any more. */
  readonly show: (things: Readonly<Record<'code' | 'route' | 'client', number | null>>) => void
}

/** What is asked, and of whom, as it is saved: the campaign one is in goes along, so that it is found again. */
export const savedValueOf = ({ of, campaign, view }: AskedResults): SavedValue => ({
  ...of,
  ...(campaign ? { campaignId: campaign.id } : {}),
  view: { ...view, by: [...view.by] },
})

/** A number of a thing; what is none is as if it were not said. */
function idIn(address: URLSearchParams, name: string): number | undefined {
  const id = Number(address.get(name))
  return Number.isSafeInteger(id) && id > 0 ? id : undefined
}

function ofIn(address: URLSearchParams, campaign: Campaign | null): Of {
  if (!campaign) return { clientId: idIn(address, 'client') }
  const [codeId, routeId] = [idIn(address, 'code'), idIn(address, 'route')]
  if (codeId !== undefined) return { codeId }
  return routeId === undefined ? { campaignId: campaign.id } : { routeId }
}

/** What the address of a screen of results asks. */
export function useResults(): AskedResults {
  const campaign = useCampaignIfAny()
  const { workspace } = useSession()
  const now = useNow()
  const [address, setAddress] = useSearchParams()
  const view = useMemo(() => readView(address), [address])
  const zone = campaign?.zone ?? workspace.zone
  return {
    of: ofIn(address, campaign),
    zone,
    campaign,
    view,
    ...daysOf(view.period, zone, now),
    isNarrowed: filterEntries(view.filters).length > 0,
    ask(change) {
      setAddress((old) => writeView(old, { ...readView(old), ...change }))
    },
    show(things) {
      setAddress((old) => {
        const next = new URLSearchParams(old)
        for (const [name, id] of Object.entries(things))
          if (id === null) next.delete(name)
          else next.set(name, String(id))
        return next
      })
    },
  }
}
