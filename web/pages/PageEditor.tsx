import AddIcon from '@mui/icons-material/Add'
import ArrowDownIcon from '@mui/icons-material/ArrowDownward'
import ArrowUpIcon from '@mui/icons-material/ArrowUpward'
import DeleteIcon from '@mui/icons-material/DeleteOutlineOutlined'
import { Alert, Box, Button, IconButton, Link, Stack, TextField, Typography } from '@mui/material'
import { LINKS_MAX, pageBody, pagesApi, publicDocument, type Page, type PageLink } from '@flimbo/core/pages'
import { Link as RouterLink } from 'react-router'
import { sentenceOf, useChange } from '../api/index.ts'
import { quantity } from '@flimbo/core/formats'
import { Conflict, PhoneFrame, Sheet, swap, Fault } from '../ui/index.ts'
import { usePageDraft, type PageDraft } from './usePageDraft.ts'

interface Props {
  readonly page: Page | null
  readonly campaignId: number
  readonly saved: (page: Page) => void
  readonly removed: () => void
}

function saveLabel(page: Page | null): string {
  if (page === null) return 'Add page'
  return page.routes.length === 0 ? 'Save' : `Save for ${quantity(page.routes.length, 'route')}`
}

/** One page: what stands on it, as a phone shows it beside, and which routes lead to it. */
export function PageEditor({ page, campaignId, saved, removed }: Props) {
  const state = usePageDraft(page, campaignId, saved)
  const remove = useChange(pagesApi.remove)
  const { draft, edit, faultOf } = state
  const text = (field: 'name' | 'title', label: string, help: string) => (
    <TextField
      size="small"
      label={label}
      value={draft[field]}
      autoFocus={page === null && field === 'name'}
      error={faultOf(field) !== undefined}
      helperText={faultOf(field) ?? help}
      onChange={({ target }) => {
        edit({ [field]: target.value })
      }}
    />
  )
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) 346px', gap: 2, alignItems: 'start' }}>
      <Sheet title={page ? page.name : 'New page'}>
        <Stack
          component="form"
          noValidate
          sx={{ gap: 2 }}
          onSubmit={(event) => {
            event.preventDefault()
            void state.save()
          }}
        >
          {text('name', 'Name', 'What it is called here; visitors do not see it.')}
          {text('title', 'Heading', 'Shown in large type at the top of the page.')}
          <TextField
            size="small"
            label="Text"
            multiline
            minRows={4}
            maxRows={14}
            value={draft.text}
            error={faultOf('text') !== undefined}
            helperText={faultOf('text') ?? 'An empty line begins a new paragraph.'}
            onChange={({ target }) => {
              edit({ text: target.value })
            }}
          />
          <Links
            links={draft.links}
            faultOf={faultOf}
            change={(links) => {
              edit({ links })
            }}
          />
          <Fault sentence={state.trouble} />
          {state.isOvertaken && (
            <Conflict
              what="page"
              keepStored={state.reset}
              overwrite={() => {
                void state.overwrite()
              }}
            />
          )}
          {remove.error && (
            <Alert severity="error" variant="outlined">
              {sentenceOf(remove.error, 'The page could not be deleted.')}
            </Alert>
          )}
          <Stack direction="row" sx={{ gap: 1, alignItems: 'center' }}>
            <Button type="submit" variant="contained" disabled={!state.isDirty || state.isSaving}>
              {saveLabel(page)}
            </Button>
            {state.isDirty
              ? page && (
                  <Button color="inherit" onClick={state.reset}>
                    Discard changes
                  </Button>
                )
              : page && (
                  <Typography variant="body2" color="textSecondary" role="status">
                    Everything is saved.
                  </Typography>
                )}
            <Box sx={{ flex: 1 }} />
            {page && (
              <Button
                color="error"
                disabled={remove.isPending}
                onClick={() => {
                  remove.mutate({ params: { id: page.id } }, { onSuccess: removed })
                }}
              >
                Delete page
              </Button>
            )}
          </Stack>
          {page && <LedTo page={page} />}
        </Stack>
      </Sheet>
      <Sheet title="On a phone">
        <Preview draft={draft} />
      </Sheet>
    </Box>
  )
}

function LedTo({ page: { campaignId, routes } }: { page: Page }) {
  if (routes.length === 0)
    return (
      <Typography variant="body2">
        No route leads here yet. On a route, let a lane lead to “a page”.
      </Typography>
    )
  return (
    <Typography variant="body2" component="div">
      Saving changes what these routes show, at once:
      <Box component="ul" aria-label="Routes that lead here" sx={{ m: 0 }}>
        {routes.map(({ id, name }) => (
          <li key={id}>
            <Link component={RouterLink} to={`/campaigns/${String(campaignId)}/routes?route=${String(id)}`}>
              {name}
            </Link>
          </li>
        ))}
      </Box>
    </Typography>
  )
}

function Links({
  links,
  faultOf,
  change,
}: {
  links: readonly PageLink[]
  faultOf: (path: string) => string | undefined
  change: (links: PageLink[]) => void
}) {
  const put = (at: number, part: Partial<PageLink>) => {
    change(links.map((each, i) => (i === at ? { ...each, ...part } : each)))
  }
  const move = (at: number, by: number) => {
    change(swap(links, at, at + by))
  }
  const field = (i: number, name: keyof PageLink, label: string, width: string) => {
    const fault = faultOf(`links.${String(i)}.${name}`)
    return (
      <TextField
        size="small"
        label={label}
        value={links[i]?.[name] ?? ''}
        placeholder={name === 'address' ? 'https://' : ''}
        error={fault !== undefined}
        helperText={fault}
        sx={{ width }}
        onChange={({ target }) => {
          put(i, { [name]: target.value })
        }}
      />
    )
  }
  return (
    <Stack sx={{ gap: 1.5 }} role="group" aria-label="Links">
      <Typography variant="h3">Links</Typography>
      <Typography variant="body2" color="textSecondary">
        Each carries the tags of the code that was scanned, as a destination does.
      </Typography>
      {links.map((_link, i) => {
        const nth = `link ${String(i + 1)}`
        return (
          <Stack
            direction="row"
            key={i}
            sx={{ gap: 1, alignItems: 'flex-start' }}
            role="group"
            aria-label={`Link ${String(i + 1)}`}
          >
            {field(i, 'label', 'Label', '38%')}
            {field(i, 'address', 'Address', '62%')}
            <IconButton
              size="small"
              aria-label={`Move ${nth} up`}
              disabled={i === 0}
              onClick={() => {
                move(i, -1)
              }}
            >
              <ArrowUpIcon fontSize="small" />
            </IconButton>
            <IconButton
              size="small"
              aria-label={`Move ${nth} down`}
              disabled={i === links.length - 1}
              onClick={() => {
                move(i, 1)
              }}
            >
              <ArrowDownIcon fontSize="small" />
            </IconButton>
            <IconButton
              size="small"
              aria-label={`Remove ${nth}`}
              onClick={() => {
                change(links.filter((_each, at) => at !== i))
              }}
            >
              <DeleteIcon fontSize="small" />
            </IconButton>
          </Stack>
        )
      })}
      <Button
        startIcon={<AddIcon />}
        sx={{ alignSelf: 'flex-start' }}
        disabled={links.length >= LINKS_MAX}
        onClick={() => {
          change([...links, { label: '', address: '' }])
        }}
      >
        Add link
      </Button>
    </Stack>
  )
}

/** The very markup the front door sends, in a frame as wide as a phone. */
function Preview({ draft }: { draft: PageDraft }) {
  return (
    <PhoneFrame
      title="The page as a phone shows it"
      markup={publicDocument(
        draft.title || 'Heading',
        pageBody({ text: draft.text, links: draft.links.filter(({ label }) => label.trim() !== '') }),
      )}
    />
  )
}
