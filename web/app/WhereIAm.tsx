import ExpandMoreIcon from '@mui/icons-material/ExpandMore'
import { Button, Menu, MenuItem, Stack, Typography } from '@mui/material'
import { campaignsApi } from '@flimbo/core/campaigns'
import { useState } from 'react'
import { useLocation, useNavigate } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { useSession } from '../session/index.ts'

/** Client and campaign one is in; the campaign is a switch that keeps the stage. */
export function WhereIAm() {
  const { clients } = useSession()
  const { pathname } = useLocation()
  const navigate = useNavigate()
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const campaigns = useAnswer(campaignsApi.names, {})
  const [, id, own] = /^\/campaigns\/(\d+)(?:\/(\w+))?/.exec(pathname) ?? []
  // Two stages are of all campaigns too.
  const [, ofAll] = /^\/(results|leads)$/.exec(pathname) ?? []
  const stage = own ?? ofAll ?? 'plan'
  const here = campaigns.data?.rows.find((campaign) => String(campaign.id) === id)
  const client = clients.find((each) => each.id === here?.clientId) ?? clients[0]
  const go = (to: number) => {
    setAnchor(null)
    void navigate(`/campaigns/${String(to)}/${stage}`)
  }
  return (
    <Stack
      component="nav"
      aria-label="Where I am"
      direction="row"
      sx={{ alignItems: 'center', gap: 0.5, minWidth: 0 }}
    >
      <Typography color="textSecondary" noWrap>
        {client?.name}
      </Typography>
      <Typography color="textSecondary" aria-hidden>
        /
      </Typography>
      <Button
        color="inherit"
        endIcon={<ExpandMoreIcon />}
        aria-haspopup="menu"
        onClick={(event) => {
          setAnchor(event.currentTarget)
        }}
        sx={{ minWidth: 0 }}
      >
        <Typography component="span" noWrap sx={{ fontWeight: 650, maxWidth: 260 }}>
          {here?.name ?? 'All campaigns'}
        </Typography>
      </Button>
      <Menu
        anchorEl={anchor}
        open={anchor !== null}
        onClose={() => {
          setAnchor(null)
        }}
      >
        <MenuItem
          selected={id === undefined}
          onClick={() => {
            setAnchor(null)
            void navigate(own === 'results' || own === 'leads' ? `/${own}` : '/')
          }}
        >
          All campaigns
        </MenuItem>
        {campaigns.data?.rows.map((campaign) => (
          <MenuItem
            key={campaign.id}
            selected={campaign.id === here?.id}
            onClick={() => {
              go(campaign.id)
            }}
          >
            {campaign.name}
          </MenuItem>
        ))}
      </Menu>
    </Stack>
  )
}
