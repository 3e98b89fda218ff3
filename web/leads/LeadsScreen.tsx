import {
  Alert,
  Box,
  Button,
  Stack,
  TextField,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from '@mui/material'
import { number } from '@flimbo/core/formats'
import { leadsApi } from '@flimbo/core/leads'
import { lazy, Suspense, useRef, useState } from 'react'
import { useSearchParams } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { useCampaignIfAny } from '../campaigns/index.ts'
import { useSession } from '../session/index.ts'
import { useFile } from '../jobs/index.ts'
import { Empty, neighbour, Sheet, Trouble, useKeys } from '../ui/index.ts'
import { WatchButton } from '../watches/index.ts'
import { queryOf, viewOf, type NarrowedTo } from './filter.ts'
import { DownloadLeads } from './DownloadLeads.tsx'
import { LeadChips } from './LeadChips.tsx'
import { LeadFilters } from './LeadFilters.tsx'
import { LeadInspector } from './LeadInspector.tsx'
import { LeadNumbers } from './LeadNumbers.tsx'
import { LeadList } from './LeadList.tsx'
import { LeadsView } from './LeadsView.tsx'
import { SelectedLeads } from './SelectedLeads.tsx'
import { useLeadChange } from './useLeadChange.ts'
import { useLeadStates } from './useLeadStates.ts'

// Reading tables comes when somebody takes one in.
const ImportLeads = lazy(async () => ({ default: (await import('./ImportLeads.tsx')).ImportLeads }))

const PAGE_SIZE = 50

/** Who answered the forms of a campaign, one by one or in numbers. */
export function LeadsScreen() {
  const [address] = useSearchParams()
  const campaign = useCampaignIfAny()
  return campaign && address.get('view') === 'numbers' ? <LeadNumbers /> : <Inbox />
}

/** An inbox at the left, the chosen person at the right. */
function Inbox() {
  const campaign = useCampaignIfAny()
  const { workspace } = useSession()
  const zone = campaign?.zone ?? workspace.zone
  const [address, setAddress] = useSearchParams()
  const view = viewOf(address)
  const [paging, setPaging] = useState(0)
  const [isImporting, setImporting] = useState(false)
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set())
  const query = queryOf(campaign?.id, view)
  const leads = useAnswer(leadsApi.list, {
    query: { ...query, page: paging, pageSize: PAGE_SIZE, order: 'desc' },
  })
  const changes = useLeadChange()
  const file = useFile(leadsApi.makeFile)
  const search = useRef<HTMLInputElement>(null)
  const rows = leads.data?.rows ?? []
  const chosen = Number(address.get('lead')) || undefined

  const set = (values: NarrowedTo) => {
    setAddress(
      (old) => {
        for (const [name, value] of Object.entries(values))
          if (value === null || value === '') old.delete(name)
          else old.set(name, value)
        return old
      },
      { replace: true },
    )
  }
  const narrow = (values: NarrowedTo) => {
    setPaging(0)
    setSelected(new Set())
    set(values)
  }
  const step = (by: number) => {
    const next = neighbour(rows, chosen, by)
    if (next) set({ lead: String(next.id) })
  }
  useKeys({
    j: () => {
      step(1)
    },
    k: () => {
      step(-1)
    },
    '/': () => {
      search.current?.focus()
    },
  })
  const isNarrowed =
    view.q !== '' ||
    view.state !== undefined ||
    view.page !== undefined ||
    view.code !== undefined ||
    view.campaign !== undefined ||
    view.tag !== undefined ||
    view.answer !== undefined ||
    Object.keys(view.where).length > 0 ||
    view.from !== undefined ||
    view.to !== undefined
  const states = leads.data?.states
  const known = useLeadStates()
  return (
    <Box sx={{ display: 'flex', height: 'calc(100vh - 94px)', minHeight: 420 }}>
      <Box sx={{ flex: 1, minWidth: 0, p: 2, overflowY: 'auto' }}>
        <Stack direction="row" sx={{ gap: 2, mb: 1.5, alignItems: 'center' }}>
          <Typography variant="h1">Leads</Typography>
          {campaign && <LeadsView shown="people" />}
          <Box sx={{ flex: 1 }} />
          {campaign && <WatchButton scope={{ campaignId: campaign.id }} name="this campaign" />}
          {campaign && (
            <Button
              onClick={() => {
                setImporting(true)
              }}
            >
              Take in…
            </Button>
          )}
          <DownloadLeads
            order={(look) => {
              void file.order({ body: { ...query, look } })
            }}
          />
        </Stack>
        <Stack direction="row" sx={{ gap: 1.5, mb: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
          <TextField
            size="small"
            label="Find in answers"
            value={view.q}
            inputRef={search}
            sx={{ width: 260 }}
            onChange={({ target }) => {
              narrow({ q: target.value })
            }}
          />
          <ToggleButtonGroup
            exclusive
            size="small"
            aria-label="State"
            value={view.held === 'yes' ? 'held' : (view.state ?? 'all')}
            onChange={(_event, next: string | null) => {
              if (next === null) return
              narrow({
                held: next === 'held' ? 'yes' : null,
                state: next === 'held' || next === 'all' ? null : next,
              })
            }}
          >
            <ToggleButton value="all">All</ToggleButton>
            {known.states.map(({ key, name }) => (
              <ToggleButton key={key} value={key}>
                {name}
                {states && view.held === 'no' ? ` ${number(states[key] ?? 0)}` : ''}
              </ToggleButton>
            ))}
            <ToggleButton value="held">Held</ToggleButton>
          </ToggleButtonGroup>
          <LeadFilters campaignId={campaign?.id} view={view} narrow={narrow} />
          <LeadChips view={view} narrow={narrow} />
        </Stack>
        {view.held === 'yes' && (
          <Typography variant="body2" color="textSecondary" sx={{ mb: 1 }}>
            These were probably sent by programs. They count nowhere until you take them.
          </Typography>
        )}
        {file.fault !== null && <Alert severity="error">{file.fault}</Alert>}
        {changes.fault !== null && <Alert severity="error">{changes.fault}</Alert>}
        {changes.done && (
          <Alert
            severity="success"
            variant="outlined"
            sx={{ mb: 1 }}
            action={
              <Button size="small" color="inherit" disabled={changes.isPending} onClick={changes.undo}>
                Undo
              </Button>
            }
          >
            {changes.done.words}
          </Alert>
        )}
        {leads.isError && (
          <Trouble
            error={leads.error}
            retry={() => {
              void leads.refetch()
            }}
          />
        )}
        {leads.data?.total === 0 && !isNarrowed && view.held === 'no' ? (
          <Sheet>
            <Empty
              title="Nobody has answered yet"
              text="Put a form on a page and let a route lead there: whoever answers stands here at once, with the printed piece that brought them."
              action={
                campaign && (
                  <Button variant="contained" href={`/campaigns/${String(campaign.id)}/pages`}>
                    Go to the pages
                  </Button>
                )
              }
            />
          </Sheet>
        ) : (
          <>
            {selected.size > 0 && (
              <SelectedLeads
                ids={[...selected]}
                isHeld={view.held === 'yes'}
                changes={changes}
                clear={() => {
                  setSelected(new Set())
                }}
              />
            )}
            <LeadList
              isOfAll={campaign === null}
              rows={rows}
              total={leads.data?.total ?? 0}
              zone={zone}
              isLoading={!leads.data && !leads.isError}
              chosen={chosen}
              choose={(id) => {
                set({ lead: String(id) })
              }}
              selected={selected}
              select={setSelected}
              paging={{ page: paging, pageSize: PAGE_SIZE, change: setPaging }}
            />
          </>
        )}
      </Box>
      {campaign && isImporting && (
        <Suspense fallback={null}>
          <ImportLeads
            campaignId={campaign.id}
            close={() => {
              setImporting(false)
            }}
          />
        </Suspense>
      )}
      {chosen !== undefined && (
        <LeadInspector
          key={chosen}
          id={chosen}
          zone={zone}
          changes={changes}
          choose={(id) => {
            set({ lead: String(id) })
          }}
          close={() => {
            set({ lead: null })
          }}
        />
      )}
    </Box>
  )
}
