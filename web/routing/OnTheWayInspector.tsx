import {
  Alert,
  Box,
  Button,
  Checkbox,
  FormControlLabel,
  Link,
  Stack,
  Switch,
  TextField,
  Typography,
} from '@mui/material'
import { routesApi, type WholeRoute } from '@flimbo/core/routing'
import { tagInWords, type VisitTag } from '@flimbo/core/visitTags'
import { useState } from 'react'
import { Link as RouterLink } from 'react-router'
import { sentenceOf, useChange } from '../api/index.ts'
import { Inspector } from '../ui/index.ts'
import type { DraftState } from './useDraft.ts'

interface Props {
  readonly route: WholeRoute
  readonly state: DraftState
  readonly tags: readonly VisitTag[]
  readonly close: () => void
}

/** What a phone meets between the code and its page: visit tags, a password, the question where it is. */
export function OnTheWayInspector({ route, state, tags, close }: Props) {
  return (
    <Inspector title="On the way" close={close}>
      <Stack sx={{ gap: 2 }}>
        <TagChoice state={state} tags={tags} />
        <PasswordForm route={route} />
        <LocationForm state={state} />
      </Stack>
    </Inspector>
  )
}

function TagChoice({
  state: {
    draft: { rules },
    edit,
  },
  tags,
}: {
  state: DraftState
  tags: readonly VisitTag[]
}) {
  const choose = (id: string, on: boolean) => {
    edit((was) => ({
      ...was,
      rules: {
        ...was.rules,
        tags: on ? [...was.rules.tags, id] : was.rules.tags.filter((each) => each !== id),
      },
    }))
  }
  return (
    <Box role="group" aria-label="Visit tags">
      <Typography variant="h3">Visit tags</Typography>
      {tags.map((tag) => (
        <FormControlLabel
          key={tag.id}
          sx={{ display: 'flex', alignItems: 'flex-start', mr: 0, mt: 1 }}
          control={
            <Checkbox
              size="small"
              sx={{ py: 0 }}
              checked={rules.tags.includes(tag.id)}
              onChange={(_event, on) => {
                choose(tag.id, on)
              }}
            />
          }
          label={
            <>
              <Typography variant="body2">{tag.name}</Typography>
              <Typography variant="caption" color="textSecondary">
                {tagInWords(tag)}
              </Typography>
            </>
          }
        />
      ))}
      {rules.tags.length > 0 && (
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mt: 1 }}>
          They fire on the way to an address; messages and pages fire none.
        </Typography>
      )}
      <Typography variant="body2" sx={{ mt: 1 }}>
        {tags.length === 0 && 'None is defined yet. '}
        <Link component={RouterLink} to="/settings/visits">
          Define visit tags
        </Link>
      </Typography>
    </Box>
  )
}

function LocationForm({
  state: {
    draft: {
      rules: { askLocation },
    },
    edit,
  },
}: {
  state: DraftState
}) {
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Typography variant="h3">Precise place</Typography>
      <FormControlLabel
        label="Ask phones where they are"
        control={
          <Switch
            size="small"
            checked={askLocation !== null}
            onChange={(_event, on) => {
              edit((was) => ({
                ...was,
                rules: {
                  ...was.rules,
                  askLocation: on
                    ? { why: 'Tell us where you are, and we show you the nearest pier.' }
                    : null,
                },
              }))
            }}
          />
        }
      />
      {askLocation && (
        <TextField
          size="small"
          label="Reason, as visitors read it"
          value={askLocation.why}
          multiline
          maxRows={4}
          onChange={({ target }) => {
            edit((was) => ({
              ...was,
              rules: { ...was.rules, askLocation: { why: target.value.replace(/[\r\n]+/g, ' ') } },
            }))
          }}
        />
      )}
      {askLocation && (
        <Typography variant="caption" color="textSecondary">
          Whoever says no is sent on all the same. The place is used to choose the lane, and kept only if the
          visitor agrees, rounded to about a kilometre.
        </Typography>
      )}
    </Stack>
  )
}

function PasswordForm({ route }: { route: WholeRoute }) {
  const [password, setPassword] = useState('')
  const { mutate, isPending, error } = useChange(routesApi.setPassword)
  const set = (next: string) => {
    mutate(
      { params: { id: route.id }, body: { version: route.version, password: next } },
      {
        onSuccess: () => {
          setPassword('')
        },
      },
    )
  }
  return (
    <Stack
      component="form"
      sx={{ gap: 1 }}
      onSubmit={(event) => {
        event.preventDefault()
        if (password !== '') set(password)
      }}
    >
      <Typography variant="h3">Password</Typography>
      <Typography variant="body2">
        {route.locked ? 'A password stands before this route.' : 'No password stands before this route.'}
      </Typography>
      {error && (
        <Alert severity="error" variant="outlined">
          {sentenceOf(error, 'The password could not be set.')}
        </Alert>
      )}
      <TextField
        size="small"
        type="password"
        label={route.locked ? 'New password' : 'Password'}
        autoComplete="new-password"
        value={password}
        onChange={({ target }) => {
          setPassword(target.value)
        }}
      />
      <Stack direction="row" sx={{ gap: 1 }}>
        <Button type="submit" variant="outlined" disabled={isPending || password === ''}>
          {route.locked ? 'Change password now' : 'Set password now'}
        </Button>
        {route.locked && (
          <Button
            color="inherit"
            disabled={isPending}
            onClick={() => {
              set('')
            }}
          >
            Remove password now
          </Button>
        )}
      </Stack>
      <Typography variant="caption" color="textSecondary">
        Live at once. Kept only as a hash: nobody can read it here again.
      </Typography>
    </Stack>
  )
}
