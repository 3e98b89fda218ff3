import MoreIcon from '@mui/icons-material/MoreVert'
import UndoIcon from '@mui/icons-material/Undo'
import { Button, IconButton, Menu, MenuItem, Stack, Tooltip, Typography } from '@mui/material'
import { quantity } from '@flimbo/core/formats'
import type { Page } from '@flimbo/core/pages'
import { useState } from 'react'
import type { PageDraft } from './usePageDraft.ts'

interface Props {
  readonly page: Page
  readonly state: PageDraft
  readonly isPublishing: boolean
  readonly publish: () => void
  readonly discard: () => void
  readonly showHistory: () => void
  readonly showResults: () => void
  readonly rename: () => void
  readonly copy: () => void
  readonly remove: () => void
}

function stateText({ live, revisionId }: Page, { isKept, isPrepared, fault }: PageDraft): string {
  if (fault !== null) return fault
  if (!isKept) return 'Saving…'
  if (live === null) return 'Draft saved, never published.'
  if (isPrepared) return 'Draft saved, not live yet.'
  return revisionId === 0 ? '' : 'Live.'
}

/** What is called what, whether it is live, and what can be done with it as a whole. */
export function PageBar({ page, state, isPublishing, publish, showResults, ...more }: Props) {
  const { routes, draft } = page
  const label = routes.length === 0 ? 'Publish' : `Publish for ${quantity(routes.length, 'route')}`
  return (
    <Stack direction="row" sx={{ alignItems: 'center', gap: 1, mb: 1.5, minWidth: 0 }}>
      <Typography variant="h2" noWrap sx={{ flex: '0 1 auto' }}>
        {page.name}
      </Typography>
      <Typography
        variant="body2"
        color={state.fault === null ? 'textSecondary' : 'error'}
        role="status"
        sx={{ flex: 1 }}
      >
        {stateText(page, state)}
      </Typography>
      <Tooltip title="Undo">
        <span>
          <IconButton
            size="small"
            aria-label="Undo"
            disabled={state.undo === null}
            onClick={() => {
              state.undo?.()
            }}
          >
            <UndoIcon fontSize="small" />
          </IconButton>
        </span>
      </Tooltip>
      <Button onClick={showResults}>Results</Button>
      <Button
        variant="contained"
        disabled={!state.isPrepared || !state.isKept || isPublishing}
        onClick={publish}
      >
        {label}
      </Button>
      <MoreMenu {...more} hasDraft={draft !== null && page.live !== null} />
    </Stack>
  )
}

function MoreMenu({
  hasDraft,
  discard,
  showHistory,
  rename,
  copy,
  remove,
}: Omit<Props, 'page' | 'state' | 'isPublishing' | 'publish' | 'showResults'> & { hasDraft: boolean }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const item = (name: string, act: () => void, isOff = false) => (
    <MenuItem
      dense
      disabled={isOff}
      onClick={() => {
        setAnchor(null)
        act()
      }}
    >
      {name}
    </MenuItem>
  )
  return (
    <>
      <IconButton
        size="small"
        aria-label="More for this page"
        aria-haspopup="menu"
        onClick={(event) => {
          setAnchor(event.currentTarget)
        }}
      >
        <MoreIcon fontSize="small" />
      </IconButton>
      <Menu
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => {
          setAnchor(null)
        }}
      >
        {item('History', showHistory)}
        {item('Rename', rename)}
        {item('Duplicate', copy)}
        {item('Discard draft', discard, !hasDraft)}
        {item('Delete page', remove)}
      </Menu>
    </>
  )
}
