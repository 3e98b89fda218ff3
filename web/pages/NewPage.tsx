import { Autocomplete, Box, Button, ButtonBase, Stack, TextField, Typography } from '@mui/material'
import { languageName } from '@flimbo/core/conditions'
import { pagesApi, STARTS, type Page, type StartKey } from '@flimbo/core/pages'
import { useState } from 'react'
import { sentenceOf, useChange } from '../api/index.ts'
import { LANGUAGES } from '../conditions/index.ts'
import { Fault, Sheet } from '../ui/index.ts'

const EMPTY = { key: null, name: 'Empty page', sentence: 'Nothing on it yet' } as const

/** Makes a page: what it is called, which language it begins in, and what it begins with. */
export function NewPage({
  campaignId,
  made,
  cancel,
}: {
  campaignId: number
  made: (page: Page) => void
  cancel: () => void
}) {
  const [name, setName] = useState('')
  const [language, setLanguage] = useState('en')
  const [start, setStart] = useState<StartKey | null>(STARTS[0].key)
  const create = useChange(pagesApi.create)
  return (
    <Sheet title="New page">
      <Stack
        component="form"
        noValidate
        sx={{ gap: 2, maxWidth: 720 }}
        onSubmit={(event) => {
          event.preventDefault()
          create.mutate({ body: { campaignId, name, start, language } }, { onSuccess: made })
        }}
      >
        <Stack direction="row" sx={{ gap: 2 }}>
          <TextField
            size="small"
            label="Name"
            autoFocus
            value={name}
            helperText="What it is called here; visitors do not see it."
            sx={{ flex: 1 }}
            onChange={({ target }) => {
              setName(target.value)
            }}
          />
          <Autocomplete
            size="small"
            sx={{ width: 240 }}
            options={[...LANGUAGES]}
            value={language as (typeof LANGUAGES)[number]}
            disableClearable
            autoHighlight
            getOptionLabel={(tag) => `${languageName(tag)} (${tag})`}
            onChange={(_event, tag) => {
              setLanguage(tag)
            }}
            renderInput={(params) => <TextField {...params} label="Language" />}
          />
        </Stack>
        <Typography variant="h3" id="begins-with">
          Begins with
        </Typography>
        <Box
          role="group"
          aria-labelledby="begins-with"
          sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(210px, 1fr))', gap: 1 }}
        >
          {[...STARTS, EMPTY].map(({ key, name: called, sentence }) => (
            <ButtonBase
              key={key ?? ''}
              aria-pressed={start === key}
              onClick={() => {
                setStart(key)
              }}
              sx={{
                flexDirection: 'column',
                alignItems: 'flex-start',
                justifyContent: 'flex-start',
                textAlign: 'left',
                p: 1.25,
                border: 1,
                borderRadius: 1,
                borderColor: start === key ? 'primary.main' : 'divider',
                outline: start === key ? 1 : 0,
                outlineColor: 'primary.main',
                '&:focus-visible': { outline: 3, outlineColor: 'primary.main' },
              }}
            >
              <Typography variant="body2" sx={{ fontWeight: 650 }}>
                {called}
              </Typography>
              <Typography variant="caption" color="textSecondary" component="p">
                {sentence}
              </Typography>
            </ButtonBase>
          ))}
        </Box>
        <Fault sentence={create.error ? sentenceOf(create.error, 'The page could not be made.') : null} />
        <Stack direction="row" sx={{ gap: 1 }}>
          <Button type="submit" variant="contained" disabled={create.isPending}>
            Make page
          </Button>
          <Button color="inherit" onClick={cancel}>
            Cancel
          </Button>
        </Stack>
      </Stack>
    </Sheet>
  )
}
