import { Autocomplete, Box, Dialog, Stack, TextField, Typography } from '@mui/material'
import { findApi, type Hit } from '@flimbo/core/workspace'
import { useDeferredValue, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { useAnswer } from '../api/index.ts'

const WHERE = { campaign: 'plan', route: 'routes', code: 'plan', page: 'pages' } as const
const NAMES = { campaign: 'campaign', route: 'route', code: 'code', page: 'page' } as const

function addressOf({ kind, id, campaignId }: Hit): string {
  return `/campaigns/${String(campaignId)}/${WHERE[kind]}${kind === 'campaign' ? '' : `?${kind}=${String(id)}`}`
}

/** One field that finds campaigns, codes and routes by whatever they are called. */
export function FindAnything({ open, close }: { open: boolean; close: () => void }) {
  const [typed, setTyped] = useState('')
  const asked = useDeferredValue(typed.trim())
  const navigate = useNavigate()
  const field = useRef<HTMLInputElement>(null)
  const found = useAnswer(findApi, { query: { q: asked } }, { enabled: open && asked !== '' })
  const leave = () => {
    setTyped('')
    close()
  }
  return (
    <Dialog
      open={open}
      onClose={leave}
      fullWidth
      maxWidth="sm"
      aria-label="Find anything"
      slotProps={{
        transition: {
          onEntered: () => {
            field.current?.focus()
          },
        },
        paper: { sx: { position: 'fixed', top: 64, m: 0, overflow: 'visible' } },
      }}
    >
      <Autocomplete<Hit, false, false, true>
        freeSolo
        // What is found belongs to the dialog: outside of it a dialog that closes meanwhile may hide it from readers of the screen.
        disablePortal
        autoHighlight
        // What is found shows for as long as something is typed, wherever the focus went meanwhile.
        open={asked !== ''}
        onClose={(_event, reason) => {
          if (reason === 'escape') leave()
        }}
        inputValue={typed}
        onInputChange={(_event, value, reason) => {
          if (reason === 'input') setTyped(value)
        }}
        options={asked === '' ? [] : (found.data?.hits ?? [])}
        filterOptions={(all) => all}
        getOptionLabel={(hit) => (typeof hit === 'string' ? hit : hit.name)}
        getOptionKey={(hit) => (typeof hit === 'string' ? hit : `${hit.kind}${String(hit.id)}`)}
        onChange={(_event, chosen) => {
          // Enter without a choice takes the likeliest.
          const hit = typeof chosen === 'string' ? found.data?.hits[0] : chosen
          if (!hit) return
          leave()
          void navigate(addressOf(hit))
        }}
        renderOption={({ key, ...props }, hit) => (
          <Box component="li" key={key} {...props}>
            <Box sx={{ minWidth: 0, width: '100%' }}>
              <Stack direction="row" sx={{ justifyContent: 'space-between', gap: 2 }}>
                <Typography noWrap>{hit.name}</Typography>
                <Typography variant="body2" color="textSecondary">
                  {NAMES[hit.kind]}
                </Typography>
              </Stack>
              <Typography noWrap variant="mono" color="textSecondary" sx={{ display: 'block' }}>
                {hit.detail}
              </Typography>
            </Box>
          </Box>
        )}
        renderInput={(params) => (
          <TextField
            {...params}
            inputRef={field}
            autoFocus
            placeholder="A name, a short link, a source, a destination"
            slotProps={{
              ...params.slotProps,
              htmlInput: { ...params.slotProps.htmlInput, 'aria-label': 'Find anything' },
            }}
          />
        )}
        sx={{ p: 1 }}
      />
      {asked !== '' && found.data?.hits.length === 0 && (
        <Typography role="status" color="textSecondary" sx={{ px: 3, pb: 2 }}>
          Nothing is called “{asked}”. Try a shorter part of it.
        </Typography>
      )}
    </Dialog>
  )
}
