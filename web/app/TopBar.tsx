import AccountCircleIcon from '@mui/icons-material/AccountCircleOutlined'
import SearchIcon from '@mui/icons-material/Search'
import {
  Box,
  Button,
  Divider,
  IconButton,
  Link,
  ListItemText,
  Menu,
  MenuItem,
  Stack,
  Tooltip,
  Typography,
} from '@mui/material'
import { useColorScheme } from '@mui/material/styles'
import { workspaceApi } from '@flimbo/core/workspace'
import { lazy, Suspense, useState } from 'react'
import { Link as RouterLink, useLocation, useNavigate } from 'react-router'
import { useChange } from '../api/index.ts'
import { useIsFetched, useKeys } from '../ui/index.ts'
import { useSession } from '../session/index.ts'
import { Mark } from './Mark.tsx'
import { Pulse } from './Pulse.tsx'
import { WhereIAm } from './WhereIAm.tsx'

const FindAnything = lazy(async () => ({ default: (await import('./FindAnything.tsx')).FindAnything }))
const KeyList = lazy(async () => ({ default: (await import('./KeyList.tsx')).KeyList }))

const SCHEMES = { system: 'as the system', light: 'light', dark: 'dark' } as const
const NEXT = { system: 'light', light: 'dark', dark: 'system' } as const

/** Where one is, the way to anything, the pulse, and the person. */
export function TopBar() {
  const [finding, setFinding] = useState(false)
  const [keysShown, setKeysShown] = useState(false)
  const isFetched = useIsFetched()
  const navigate = useNavigate()
  const { standIns } = useSession()
  const code = new URLSearchParams(useLocation().search).get('code')
  useKeys({
    'ctrl+k': () => {
      setKeysShown(false)
      setFinding(true)
    },
    '?': () => {
      setKeysShown(true)
    },
    // With a piece chosen, it is that piece's symbol the phone is shown.
    t: () => {
      if (standIns) void navigate(code === null ? '/phone' : `/phone?code=${code}`)
    },
  })
  return (
    <Stack
      component="header"
      direction="row"
      sx={{
        height: 48,
        px: 2,
        gap: 2,
        alignItems: 'center',
        bgcolor: 'background.paper',
        borderBottom: 1,
        borderColor: 'divider',
      }}
    >
      <Link
        component={RouterLink}
        to="/"
        underline="none"
        color="textPrimary"
        aria-label="Flimbo, to the desk"
        sx={{ display: 'flex', alignItems: 'center', gap: 1 }}
      >
        <Mark />
        <Typography component="span" sx={{ fontWeight: 750, fontSize: '1rem' }}>
          Flimbo
        </Typography>
      </Link>
      <WhereIAm />
      <Box sx={{ flex: 1 }} />
      <Button
        variant="outlined"
        color="inherit"
        startIcon={<SearchIcon />}
        onClick={() => {
          setFinding(true)
        }}
        sx={{
          borderColor: 'divider',
          color: 'text.secondary',
          fontWeight: 400,
          minWidth: 190,
          justifyContent: 'flex-start',
        }}
      >
        Find anything
        <Typography component="kbd" variant="caption" sx={{ ml: 'auto', pl: 2, fontFamily: 'inherit' }}>
          Ctrl K
        </Typography>
      </Button>
      <Pulse />
      <PersonMenu
        showKeys={() => {
          setKeysShown(true)
        }}
      />
      {/* They stay, so that they close as they opened. */}
      <Suspense fallback={null}>
        {(isFetched || finding) && (
          <FindAnything
            open={finding}
            close={() => {
              setFinding(false)
            }}
          />
        )}
        {(isFetched || keysShown) && (
          <KeyList
            open={keysShown}
            close={() => {
              setKeysShown(false)
            }}
          />
        )}
      </Suspense>
    </Stack>
  )
}

function PersonMenu({ showKeys }: { showKeys: () => void }) {
  const { person, workspace, standIns } = useSession()
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const { mode = 'system', setMode } = useColorScheme()
  const signOut = useChange(workspaceApi.signOut)
  const navigate = useNavigate()
  const close = () => {
    setAnchor(null)
  }
  return (
    <>
      <Tooltip title={person.name}>
        <IconButton
          aria-label={`Menu of ${person.name}`}
          aria-haspopup="menu"
          onClick={(event) => {
            setAnchor(event.currentTarget)
          }}
        >
          <AccountCircleIcon />
        </IconButton>
      </Tooltip>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
        <Box sx={{ px: 2, py: 1 }}>
          <Typography sx={{ fontWeight: 650 }}>{person.name}</Typography>
          <Typography variant="body2" color="textSecondary">
            {person.email} · {person.role}
          </Typography>
          <Typography variant="body2" color="textSecondary">
            {workspace.name}
          </Typography>
        </Box>
        <Divider />
        <MenuItem
          onClick={() => {
            close()
            void navigate('/settings')
          }}
        >
          <ListItemText>Settings</ListItemText>
        </MenuItem>
        <MenuItem
          onClick={() => {
            close()
            void navigate('/jobs')
          }}
        >
          <ListItemText>Jobs: imports, checks and downloads</ListItemText>
        </MenuItem>
        {standIns && (
          <MenuItem
            onClick={() => {
              close()
              void navigate('/phone')
            }}
          >
            <ListItemText>Phone: scan a symbol</ListItemText>
          </MenuItem>
        )}
        <MenuItem
          onClick={() => {
            setMode(NEXT[mode])
          }}
        >
          <ListItemText>Colours: {SCHEMES[mode]}</ListItemText>
        </MenuItem>
        <MenuItem
          onClick={() => {
            close()
            showKeys()
          }}
        >
          <ListItemText>Keyboard shortcuts</ListItemText>
        </MenuItem>
        <Divider />
        <MenuItem
          onClick={() => {
            close()
            signOut.mutate({})
          }}
        >
          <ListItemText>Sign out</ListItemText>
        </MenuItem>
      </Menu>
    </>
  )
}
