import BookmarkIcon from '@mui/icons-material/BookmarkBorderOutlined'
import DeleteIcon from '@mui/icons-material/DeleteOutlineOutlined'
import { Button, Divider, IconButton, Popover, Stack, TextField, Typography } from '@mui/material'
import { planApi } from '@flimbo/core/plan'
import { useState } from 'react'
import { ApiProblem, useAnswer, useChange } from '../api/index.ts'
import type { Arrangement } from './useArrangement.ts'
import { ToolButton } from './ToolButton.tsx'

/** Ways of looking at a plan that the workspace has saved under names. */
export function ViewsMenu({ arrangement }: { arrangement: Arrangement }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const [name, setName] = useState('')
  const [trouble, setTrouble] = useState<string | null>(null)
  const views = useAnswer(planApi.views, {})
  const save = useChange(planApi.saveView)
  const drop = useChange(planApi.dropView)
  const rows = views.data?.rows ?? []
  const keep = async () => {
    setTrouble(null)
    try {
      await save.mutateAsync({ body: { name, value: arrangement.value } })
      setName('')
    } catch (error) {
      setTrouble(error instanceof ApiProblem ? error.problem.detail : 'The view could not be saved.')
    }
  }
  return (
    <>
      <ToolButton label="Views" icon={<BookmarkIcon fontSize="small" />} popup="dialog" open={setAnchor} />
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => {
          setAnchor(null)
        }}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{ paper: { 'aria-label': 'Saved views', role: 'dialog' } }}
      >
        <Stack sx={{ p: 2, width: 320, gap: 1 }}>
          {rows.length === 0 && (
            <Typography variant="body2" color="textSecondary">
              No view is saved yet. Arrange columns, order and filter as you need them, then give that a name.
            </Typography>
          )}
          {rows.map((view) => (
            <Stack key={view.id} direction="row" sx={{ alignItems: 'center' }}>
              <Button
                color="inherit"
                onClick={() => {
                  arrangement.lookBy(view.value)
                  setAnchor(null)
                }}
                sx={{ flex: 1, justifyContent: 'flex-start' }}
              >
                {view.name}
              </Button>
              <IconButton
                size="small"
                aria-label={`Delete the view ${view.name}`}
                onClick={() => {
                  drop.mutate({ params: { id: view.id } })
                }}
              >
                <DeleteIcon fontSize="small" />
              </IconButton>
            </Stack>
          ))}
          <Divider />
          <Stack
            direction="row"
            spacing={1}
            component="form"
            onSubmit={(event) => {
              event.preventDefault()
              void keep()
            }}
          >
            <TextField
              size="small"
              fullWidth
              label="Save this view as"
              value={name}
              onChange={(event) => {
                setName(event.target.value)
                setTrouble(null)
              }}
              error={trouble !== null}
              helperText={trouble}
            />
            <Button
              type="submit"
              variant="outlined"
              disabled={name.trim() === '' || save.isPending}
              sx={{ alignSelf: 'flex-start' }}
            >
              Save
            </Button>
          </Stack>
        </Stack>
      </Popover>
    </>
  )
}
