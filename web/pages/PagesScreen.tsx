import AddIcon from '@mui/icons-material/Add'
import { Box, Button, List, ListItemButton, Skeleton, Stack, TextField, Typography } from '@mui/material'
import { pagesApi, type PageSummary } from '@flimbo/core/pages'
import { useSearchParams } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { number, quantity } from '@flimbo/core/formats'
import { useState } from 'react'
import { Empty, neighbour, Sheet, Trouble, useKeys } from '../ui/index.ts'
import { NewPage } from './NewPage.tsx'
import { PageEditor } from './PageEditor.tsx'
import { TeamImport } from './TeamImport.tsx'

/** More than these are found by their names. */
const SHOWN = 100

/** The pages of a campaign at the left, the chosen one in the middle, and as a phone shows it at the right. */
export function PagesScreen() {
  const { id: campaignId } = useCampaign()
  const [address, setAddress] = useSearchParams()
  const pages = useAnswer(pagesApi.list, { query: { campaignId } })
  const rows = pages.data?.rows ?? []
  const isAdding = address.has('new')
  const isTeam = address.has('team')
  const isEmpty = pages.data !== undefined && rows.length === 0 && !isAdding && !isTeam
  const chosen =
    isAdding || isTeam ? undefined : (rows.find(({ id }) => String(id) === address.get('page')) ?? rows[0])
  const choose = (id: number) => {
    setAddress({ page: String(id) }, { replace: true })
  }
  const add = () => {
    // Back leads to where somebody was before, however often it was pressed.
    setAddress({ new: '' }, { replace: isAdding || isTeam })
  }
  const back = () => {
    setAddress({}, { replace: true })
  }
  const step = (by: number) => {
    const next = neighbour(rows, chosen?.id, by)
    if (next) choose(next.id)
  }
  useKeys({
    j: () => {
      step(1)
    },
    k: () => {
      step(-1)
    },
    n: add,
  })
  return (
    <Box sx={{ p: 2, width: '100%', maxWidth: 1560, mx: 'auto' }}>
      <Stack direction="row" sx={{ gap: 2, mb: 2, alignItems: 'center' }}>
        <Typography variant="h1" sx={{ flex: 1 }}>
          Pages
        </Typography>
        <Button
          onClick={() => {
            setAddress({ team: '' }, { replace: isAdding || isTeam })
          }}
        >
          A team’s cards
        </Button>
        <Button variant="contained" startIcon={<AddIcon />} onClick={add}>
          New page
        </Button>
      </Stack>
      {pages.isError && (
        <Trouble
          error={pages.error}
          retry={() => {
            void pages.refetch()
          }}
        />
      )}
      {!pages.data && <Skeleton variant="rounded" height={320} />}
      {isEmpty && (
        <Sheet>
          <Empty
            title="No page yet"
            text="A page is what Flimbo itself shows on a phone: an audio stop, a menu, a contact, a few links. Make one, then let a lane of a route, or what comes before or after it, lead to it."
            action={
              <Button variant="contained" onClick={add}>
                Add the first page
              </Button>
            }
          />
        </Sheet>
      )}
      {pages.data && !isEmpty && (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: rows.length > 0 ? '196px minmax(0, 1fr)' : 'minmax(0, 1fr)',
            gap: 2,
            alignItems: 'start',
          }}
        >
          {rows.length > 0 && <PageList rows={rows} chosen={chosen?.id} choose={choose} />}
          {isTeam && <TeamImport campaignId={campaignId} done={back} cancel={back} />}
          {isAdding && (
            <NewPage
              campaignId={campaignId}
              made={({ id }) => {
                choose(id)
              }}
              cancel={back}
            />
          )}
          {chosen && <ChosenPage key={chosen.id} id={chosen.id} choose={choose} removed={back} />}
        </Box>
      )}
    </Box>
  )
}

function PageList({
  rows,
  chosen,
  choose,
}: {
  rows: readonly PageSummary[]
  chosen: number | undefined
  choose: (id: number) => void
}) {
  const [words, setWords] = useState('')
  const wanted = rows.filter(({ name }) => name.toLowerCase().includes(words.trim().toLowerCase()))
  const some = wanted.slice(0, SHOWN)
  return (
    <Sheet pad={false}>
      {rows.length > SHOWN && (
        <TextField
          size="small"
          label="Find a page"
          value={words}
          sx={{ m: 1 }}
          onChange={({ target }) => {
            setWords(target.value)
          }}
        />
      )}
      <List
        component="div"
        role="group"
        aria-label="Pages"
        disablePadding
        sx={{ maxHeight: 'calc(100vh - 200px)', overflowY: 'auto' }}
      >
        {some.map(({ id, name, routes, revisionId, hasDraft }) => (
          <ListItemButton
            key={id}
            divider
            selected={id === chosen}
            aria-current={id === chosen}
            onClick={() => {
              choose(id)
            }}
            sx={{ display: 'block', py: 1, px: 1.5 }}
          >
            <Typography noWrap variant="body2" sx={{ fontWeight: 650 }}>
              {name}
            </Typography>
            <Typography variant="caption" color="textSecondary" component="p">
              {summaryOf(revisionId, hasDraft, routes.length)}
            </Typography>
          </ListItemButton>
        ))}
      </List>
      {wanted.length > some.length && (
        <Typography variant="caption" color="textSecondary" sx={{ p: 1.5 }}>
          The first {String(SHOWN)} of {number(wanted.length)}.
        </Typography>
      )}
    </Sheet>
  )
}

function summaryOf(revisionId: number, hasDraft: boolean, routes: number): string {
  if (revisionId === 0) return 'not published'
  const led = routes === 0 ? 'no route leads here' : quantity(routes, 'route')
  return hasDraft ? `${led}, draft` : led
}

/** The chosen page, once it has come. */
function ChosenPage({
  id,
  choose,
  removed,
}: {
  id: number
  choose: (id: number) => void
  removed: () => void
}) {
  const page = useAnswer(pagesApi.get, { params: { id } })
  if (page.isError)
    return (
      <Trouble
        error={page.error}
        retry={() => {
          void page.refetch()
        }}
      />
    )
  const content = page.data?.draft ?? page.data?.live
  if (!page.data || !content) return <Skeleton variant="rounded" height={480} />
  return <PageEditor page={page.data} content={content} choosePage={choose} removed={removed} />
}
