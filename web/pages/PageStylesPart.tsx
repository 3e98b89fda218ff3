import AddIcon from '@mui/icons-material/Add'
import { Box, Button, List, ListItemButton, Skeleton, Stack, TextField, Typography } from '@mui/material'
import { quantity } from '@flimbo/core/formats'
import {
  newPageStyle,
  pageStylesApi,
  PLAIN_STYLE,
  startContent,
  styleFaults,
  type PageStyle,
  type SavedStyle,
} from '@flimbo/core/pages'
import type { StoredFile } from '@flimbo/core/files'
import { filesApi } from '@flimbo/core/files'
import { useState } from 'react'
import { sentenceOf, useAnswer, useChange, useVersion } from '../api/index.ts'
import { Pick } from '../conditions/index.ts'
import { useSession } from '../session/index.ts'
import { Conflict, Empty, Fault, Sheet, Trouble } from '../ui/index.ts'
import { PagePreview } from './PagePreview.tsx'
import { DefaultSwitch, StyleForm } from './StyleForm.tsx'

const WORKSPACE = 'workspace'
const SAMPLE = startContent('menu', 'en', 'UTC')

interface Edited {
  readonly name: string
  readonly clientId: number | null
  readonly isDefault: boolean
  readonly style: PageStyle
}
const FRESH: Edited = { name: '', clientId: null, isDefault: false, style: PLAIN_STYLE }
const partsOf = ({ name, clientId, isDefault, style }: SavedStyle): Edited => ({
  name,
  clientId,
  isDefault,
  style,
})

/** How pages look: the saved styles at the left, the chosen one, and a page in it. */
export function PageStylesPart() {
  const styles = useAnswer(pageStylesApi.list, {})
  const [chosen, setChosen] = useState<number | 'new' | null>(null)
  if (styles.isError) return <Trouble error={styles.error} />
  if (!styles.data) return <Skeleton variant="rounded" height={320} />
  const { rows } = styles.data
  const shown = chosen === 'new' ? null : (rows.find(({ id }) => id === chosen) ?? rows[0] ?? null)
  const add = () => {
    setChosen('new')
  }
  if (rows.length === 0 && chosen !== 'new')
    return (
      <Sheet>
        <Empty
          title="No page style yet"
          text="Pages look plain: paper by day, ink in the dark. A style has a workspace’s or client’s own colours, letters and ground; what people could not read is refused."
          action={
            <Button variant="contained" onClick={add}>
              Add the first style
            </Button>
          }
        />
      </Sheet>
    )
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '200px minmax(0, 1fr)', gap: 2, alignItems: 'start' }}>
      <Sheet pad={false}>
        <List component="div" role="group" aria-label="Page styles" disablePadding>
          {rows.map(({ id, name, isDefault, pages }) => (
            <ListItemButton
              key={id}
              divider
              selected={shown?.id === id}
              aria-current={shown?.id === id}
              sx={{ display: 'block' }}
              onClick={() => {
                setChosen(id)
              }}
            >
              <Typography variant="body2" noWrap sx={{ fontWeight: 650 }}>
                {name}
              </Typography>
              <Typography variant="caption" color="textSecondary">
                {isDefault ? 'default, ' : ''}chosen by {quantity(pages, 'page')}
              </Typography>
            </ListItemButton>
          ))}
        </List>
        <Button startIcon={<AddIcon />} sx={{ m: 1 }} onClick={add}>
          New style
        </Button>
      </Sheet>
      <StyleEditor
        key={shown?.id ?? 'new'}
        saved={shown}
        done={(id) => {
          setChosen(id)
        }}
      />
    </Box>
  )
}

function StyleEditor({ saved, done }: { saved: SavedStyle | null; done: (id: number | null) => void }) {
  const { clients } = useSession()
  const [local, setLocal] = useState<Edited | null>(null)
  const [known, setKnown] = useState<readonly StoredFile[]>([])
  const uploaded = useAnswer(filesApi.list, { query: { pageSize: 200, order: 'desc', of: 'picture' } })
  const create = useChange(pageStylesApi.create)
  const change = useChange(pageStylesApi.change)
  const remove = useChange(pageStylesApi.remove)
  const version = useVersion<SavedStyle>(saved?.version ?? 0, local !== null)
  const edited = local ?? (saved ? partsOf(saved) : FRESH)
  const files = new Map([...(uploaded.data?.rows ?? []), ...known].map((file) => [file.key, file]))
  const fileOf = (key: string) => files.get(key)
  const edit = (part: Partial<Edited>) => {
    setLocal({ ...edited, ...part })
  }
  const error = create.error ?? change.error ?? remove.error
  const faults = styleFaults(edited.style)
  const isNamed = newPageStyle.shape.name.safeParse(edited.name).success
  async function save(): Promise<void> {
    const next = await version
      .save((from) =>
        saved
          ? change.mutateAsync({ params: { id: saved.id }, body: { version: from, ...edited } })
          : create.mutateAsync({ body: edited }),
      )
      .catch(() => null)
    if (next === null) return
    setLocal(null)
    done(next.id)
  }
  const owner = clients.find(({ id }) => id === edited.clientId)?.name ?? 'the workspace'
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) 346px', gap: 2, alignItems: 'start' }}>
      <Sheet title={saved ? saved.name : 'New page style'}>
        <Stack
          component="form"
          noValidate
          sx={{ gap: 2 }}
          onSubmit={(event) => {
            event.preventDefault()
            void save()
          }}
        >
          <TextField
            size="small"
            label="Name"
            value={edited.name}
            onChange={({ target }) => {
              edit({ name: target.value })
            }}
          />
          <Pick
            label="Whose"
            value={edited.clientId === null ? WORKSPACE : String(edited.clientId)}
            choices={[
              [WORKSPACE, 'The whole workspace'],
              ...clients.map(({ id, name }) => [String(id), name] as const),
            ]}
            change={(id) => {
              edit({ clientId: id === WORKSPACE ? null : Number(id) })
            }}
          />
          <DefaultSwitch
            isOn={edited.isDefault}
            of={owner}
            change={(isDefault) => {
              edit({ isDefault })
            }}
          />
          <StyleForm
            style={edited.style}
            fileOf={fileOf}
            learn={(file) => {
              setKnown((all) => [...all, file])
            }}
            change={(style) => {
              edit({ style })
            }}
          />
          <Fault sentence={error ? sentenceOf(error, 'The style could not be saved.') : null} />
          {version.newer !== null && (
            <Conflict
              what="page style"
              keepStored={() => {
                version.rebase()
                setLocal(null)
              }}
              overwrite={() => {
                version.rebase()
                void save()
              }}
            />
          )}
          <Stack direction="row" sx={{ gap: 1 }}>
            <Button
              type="submit"
              variant="contained"
              disabled={
                local === null || faults.length > 0 || !isNamed || create.isPending || change.isPending
              }
            >
              {saved && saved.pages > 0 ? `Save for ${quantity(saved.pages, 'page')}` : 'Save'}
            </Button>
            {local !== null && (
              <Button
                color="inherit"
                onClick={() => {
                  setLocal(null)
                }}
              >
                Discard changes
              </Button>
            )}
            <Box sx={{ flex: 1 }} />
            {saved && (
              <Button
                color="error"
                onClick={() => {
                  remove.mutate(
                    { params: { id: saved.id } },
                    {
                      onSuccess: () => {
                        done(null)
                      },
                    },
                  )
                }}
              >
                Delete style
              </Button>
            )}
          </Stack>
        </Stack>
      </Sheet>
      <Box sx={{ position: 'sticky', top: 8 }}>
        <Sheet title="On a phone">
          <PagePreview content={SAMPLE} style={edited.style} language="en" fileOf={fileOf} />
        </Sheet>
      </Box>
    </Box>
  )
}
