import CloseIcon from '@mui/icons-material/Close'
import {
  Autocomplete,
  Box,
  Button,
  FormControlLabel,
  IconButton,
  Stack,
  Switch,
  TextField,
  Typography,
} from '@mui/material'
import { languageName } from '@flimbo/core/conditions'
import { quantity } from '@flimbo/core/formats'
import { missingTexts, PAGE_FIELDS, PART_NAMES, type PageContent, type SavedStyle } from '@flimbo/core/pages'
import { languageTag, LANGUAGES_MAX } from '@flimbo/core/fields'
import { LANGUAGES, Pick, ZoneField } from '../conditions/index.ts'
import type { Editing } from './FieldInput.tsx'
import { FieldsInput } from './FieldsInput.tsx'

interface Props {
  readonly content: PageContent
  readonly editing: Editing
  readonly styles: readonly SavedStyle[]
  readonly change: (content: PageContent) => void
  /** Opens a text that a language lacks. */
  readonly open: (partId: string, language: string) => void
}

const DEFAULT_STYLE = ''

/** What a page says of itself: its title and preview, its languages, its style. */
export function PageForm({ content, editing, styles, change, open }: Props) {
  return (
    <Stack sx={{ gap: 2 }}>
      <Typography variant="h2">Page</Typography>
      <FieldsInput
        fields={PAGE_FIELDS}
        values={content}
        before=""
        editing={editing}
        change={(name, value) => {
          change({ ...content, [name]: value })
        }}
      />
      <Languages content={content} change={change} open={open} />
      {content.parts.length === 1 && content.parts[0]?.kind === 'file' && (
        <FormControlLabel
          label="Open the file itself, without this page around it"
          slotProps={{ typography: { variant: 'body2' } }}
          control={
            <Switch
              size="small"
              checked={content.isFileItself}
              onChange={(_event, isFileItself) => {
                change({ ...content, isFileItself })
              }}
            />
          }
        />
      )}
      <Pick
        label="Style"
        value={content.styleId === null ? DEFAULT_STYLE : String(content.styleId)}
        choices={[
          [DEFAULT_STYLE, 'The client’s or workspace’s default'],
          ...styles.map(({ id, name }) => [String(id), name] as const),
        ]}
        change={(id) => {
          change({ ...content, styleId: id === DEFAULT_STYLE ? null : Number(id) })
        }}
      />
      <ZoneField
        value={content.zone}
        change={(zone) => {
          change({ ...content, zone })
        }}
      />
    </Stack>
  )
}

function Languages({ content, change, open }: Pick<Props, 'content' | 'change' | 'open'>) {
  const { languages } = content
  const missing = missingTexts(content)
  const set = (next: readonly string[]) => {
    change({ ...content, languages: [...next] })
  }
  return (
    <Box role="group" aria-label="Languages">
      <Typography variant="h3" sx={{ mb: 0.5 }}>
        Languages
      </Typography>
      <Typography variant="body2" color="textSecondary" sx={{ mb: 1 }}>
        Visitors are shown theirs. What it lacks is shown in the first.
      </Typography>
      {languages.map((language, i) => {
        const lacks = missing.filter((each) => each.language === language)
        const [first] = lacks
        return (
          <Stack key={language} direction="row" sx={{ alignItems: 'center', gap: 1, minHeight: 36 }}>
            <Typography variant="body2" sx={{ flex: 1 }}>
              {languageName(language)}
              {i === 0 && ' (first)'}
            </Typography>
            {first && (
              <Button
                size="small"
                onClick={() => {
                  open(first.partId, language)
                }}
              >
                {quantity(lacks.length, 'text')} missing
              </Button>
            )}
            {i > 0 && (
              <Button
                size="small"
                onClick={() => {
                  set([language, ...languages.filter((each) => each !== language)])
                }}
              >
                Make first
              </Button>
            )}
            <IconButton
              size="small"
              aria-label={`Remove ${languageName(language)}`}
              disabled={languages.length === 1}
              onClick={() => {
                set(languages.filter((each) => each !== language))
              }}
            >
              <CloseIcon fontSize="small" />
            </IconButton>
          </Stack>
        )
      })}
      {missing.length > 0 && (
        <Box component="ul" sx={{ m: 0, pl: 2.5 }} aria-label="Missing texts">
          {missing.slice(0, 12).map(({ partId, path, language, label, instead }) => {
            const part = content.parts.find(({ id }) => id === partId)
            return (
              <Typography key={`${partId} ${path} ${language}`} component="li" variant="caption">
                {part ? PART_NAMES[part.kind] : 'Page'}, {label.toLowerCase()}: not in{' '}
                {languageName(language)}, shown in {languageName(instead)}
              </Typography>
            )
          })}
        </Box>
      )}
      <Autocomplete
        size="small"
        freeSolo
        autoHighlight
        sx={{ mt: 1 }}
        disabled={languages.length >= LANGUAGES_MAX}
        options={LANGUAGES.filter((tag) => !languages.includes(tag))}
        getOptionLabel={(tag) => `${languageName(tag)} (${tag})`}
        value={null}
        blurOnSelect
        clearOnBlur
        key={languages.join(' ')}
        onChange={(_event, tag) => {
          const { data: added } = languageTag.safeParse(tag)
          if (added !== undefined && !languages.includes(added)) set([...languages, added])
        }}
        renderInput={(params) => <TextField {...params} label="Add language" />}
      />
    </Box>
  )
}
