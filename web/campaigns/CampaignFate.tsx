import { Alert, Button, ListItemText, Menu, MenuItem, Snackbar } from '@mui/material'
import { campaignsApi, type Campaign } from '@flimbo/core/campaigns'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { ApiProblem, useChange } from '../api/index.ts'
import { CopyCampaign } from './CopyCampaign.tsx'

/** What may become of a campaign: pinned to the desk, begun anew as next year's, or put away. Each is done at once, and can be taken back in the same place. */
export function CampaignFate({ campaign }: { campaign: Campaign }) {
  const change = useChange(campaignsApi.change)
  const navigate = useNavigate()
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const [trouble, setTrouble] = useState<string | null>(null)
  const [copying, setCopying] = useState(false)
  const archived = campaign.archivedAt !== null
  const set = async (part: { pinned?: boolean; archived?: boolean }) => {
    setAnchor(null)
    try {
      await change.mutateAsync({ params: { id: campaign.id }, body: { version: campaign.version, ...part } })
      if (part.archived) void navigate('/')
    } catch (error) {
      setTrouble(
        error instanceof ApiProblem ? error.problem.detail : 'That could not be done. Nothing was changed.',
      )
    }
  }
  return (
    <>
      <Button
        color="inherit"
        sx={{ alignSelf: 'center' }}
        aria-haspopup="menu"
        onClick={(event) => {
          setAnchor(event.currentTarget)
        }}
      >
        Pin, duplicate, archive
      </Button>
      <Menu
        anchorEl={anchor}
        open={anchor !== null}
        onClose={() => {
          setAnchor(null)
        }}
      >
        <MenuItem
          onClick={() => {
            void set({ pinned: !campaign.pinned })
          }}
        >
          <ListItemText
            primary={campaign.pinned ? 'Unpin' : 'Pin to the desk'}
            secondary="Pinned ones stand first"
          />
        </MenuItem>
        <MenuItem
          onClick={() => {
            setAnchor(null)
            setCopying(true)
          }}
        >
          <ListItemText primary="Duplicate…" secondary="As next year’s plan, with new short links" />
        </MenuItem>
        <MenuItem
          onClick={() => {
            void set({ archived: !archived })
          }}
        >
          <ListItemText
            primary={archived ? 'Restore' : 'Archive'}
            secondary={archived ? 'Back to the desk' : 'Off the desk; its codes go on working'}
          />
        </MenuItem>
      </Menu>
      <CopyCampaign
        campaign={campaign}
        open={copying}
        close={() => {
          setCopying(false)
        }}
        made={(id) => {
          setCopying(false)
          void navigate(`/campaigns/${String(id)}/plan`)
        }}
      />
      <Snackbar
        open={trouble !== null}
        onClose={() => {
          setTrouble(null)
        }}
      >
        <Alert
          severity="error"
          variant="outlined"
          onClose={() => {
            setTrouble(null)
          }}
          sx={{ bgcolor: 'background.paper' }}
        >
          {trouble}
        </Alert>
      </Snackbar>
    </>
  )
}
