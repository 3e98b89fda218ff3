import { Alert, Box, Link, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { languageName } from '@flimbo/core/conditions'
import type { StoredFile } from '@flimbo/core/files'
import {
  pageFaults,
  pageStylesApi,
  PLAIN_STYLE,
  type Page,
  type PageContent,
  type PageStyle,
  type SavedStyle,
} from '@flimbo/core/pages'
import { useMemo, useState } from 'react'
import { Link as RouterLink } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { Conflict, Fault, Sheet } from '../ui/index.ts'
import { withChanged, withCopy, withMoved, withoutPart, withPart } from './editParts.ts'
import type { Editing } from './FieldInput.tsx'
import { PageBar } from './PageBar.tsx'
import { PageForm } from './PageForm.tsx'
import { PageHistory } from './PageHistory.tsx'
import { PageResults } from './PageResults.tsx'
import { PagePreview } from './PagePreview.tsx'
import { PartForm } from './PartForm.tsx'
import { PartList } from './PartList.tsx'
import { RenamePage } from './RenamePage.tsx'
import { usePageActions } from './usePageActions.ts'
import { usePageDraft } from './usePageDraft.ts'

interface Props {
  readonly page: Page
  readonly content: PageContent
  readonly choosePage: (id: number) => void
  readonly removed: () => void
}

const NO_STYLES: readonly SavedStyle[] = []

/** The style a page has: its own, its client's, or the workspace's. */
function styleOf({ styleId }: PageContent, styles: readonly SavedStyle[], clientId: number): PageStyle {
  const found =
    styles.find(({ id }) => id === styleId) ??
    styles.find((each) => each.isDefault && each.clientId === clientId) ??
    styles.find((each) => each.isDefault && each.clientId === null)
  return found?.style ?? PLAIN_STYLE
}

/** Files by their keys: those the page names, and those that were chosen since. */
function useFiles(known: readonly StoredFile[]) {
  const [more, setMore] = useState<readonly StoredFile[]>([])
  const all = useMemo(() => new Map([...known, ...more].map((file) => [file.key, file])), [known, more])
  return {
    fileOf: (key: string) => all.get(key),
    learn: (file: StoredFile) => {
      setMore((files) => [...files, file])
    },
  }
}

/** One page: its parts, the one that is edited, and all of it as a phone shows it. */
export function PageEditor({ page, content: stored, choosePage, removed }: Props) {
  const state = usePageDraft(page, stored)
  const { draft: content, edit } = state
  const { clientId, zone } = useCampaign()
  const styles = useAnswer(pageStylesApi.list, {}).data?.rows ?? NO_STYLES
  const files = useFiles(page.files)
  const [chosen, setChosen] = useState<string | null>(content.parts[0]?.id ?? null)
  const [language, setLanguage] = useState(content.languages[0] ?? 'en')
  const [panel, setPanel] = useState<'edit' | 'history' | 'rename' | 'results'>('edit')
  const [showsFaults, setShowsFaults] = useState(false)
  const actions = usePageActions(page, state, choosePage, removed)
  const faults = useMemo(() => pageFaults(content), [content])
  const serverFaults = actions.faults
  const part = content.parts.find(({ id }) => id === chosen)
  const partId = part?.id ?? ''
  const editing: Editing = {
    language: content.languages.includes(language) ? language : (content.languages[0] ?? 'en'),
    languages: content.languages,
    faultAt: (path) =>
      (showsFaults ? faults : serverFaults).find((each) => each.partId === partId && each.path === path)
        ?.sentence,
    ...files,
  }
  const change = (next: PageContent) => {
    edit(() => next)
  }
  const choose = (id: string | null) => {
    setChosen(id)
    setPanel('edit')
  }
  const publish = () => {
    const [first] = faults
    setShowsFaults(first !== undefined)
    if (first) choose(first.partId === '' ? null : first.partId)
    else actions.publish()
  }
  const faulty = new Set((showsFaults ? faults : serverFaults).map(({ partId: id }) => id))
  return (
    <Box sx={{ minWidth: 0 }}>
      <PageBar
        page={page}
        state={state}
        isPublishing={actions.isPublishing}
        publish={publish}
        discard={actions.discard}
        copy={actions.copy}
        remove={actions.remove}
        showResults={() => {
          setPanel('results')
        }}
        showHistory={() => {
          setPanel('history')
        }}
        rename={() => {
          setPanel('rename')
        }}
      />
      {showsFaults && faults.length > 0 && (
        <Alert severity="warning" variant="outlined" sx={{ mb: 1.5 }}>
          Not published: {String(faults.length)} {faults.length === 1 ? 'thing is' : 'things are'} missing.
          They are marked below.
        </Alert>
      )}
      <Fault sentence={actions.trouble} />
      {state.isOvertaken && (
        <Conflict what="page" keepStored={state.keepStored} overwrite={state.overwrite} />
      )}
      <Box
        sx={{
          display: 'grid',
          // Figures and their rows want the room that the preview has.
          gridTemplateColumns: `224px minmax(0, 1fr)${panel === 'results' ? '' : ' 346px'}`,
          gap: 2,
          alignItems: 'start',
        }}
      >
        <Sheet pad={false}>
          <PartList
            content={content}
            language={editing.language}
            chosen={panel === 'edit' ? (part?.id ?? null) : ''}
            choose={choose}
            faulty={faulty}
            move={(id, to) => {
              change(withMoved(content, id, to))
            }}
            add={(kind) => {
              const made = withPart(content, kind, part?.id ?? null)
              change(made.content)
              choose(made.id)
            }}
          />
        </Sheet>
        <Sheet>
          {panel === 'results' && <PageResults page={page} content={content} zone={zone} />}
          {panel === 'history' && <PageHistory page={page} zone={zone} />}
          {panel === 'rename' && (
            <RenamePage
              page={page}
              done={() => {
                setPanel('edit')
              }}
            />
          )}
          {panel === 'edit' && content.languages.length > 1 && (
            <LanguageSwitch content={content} language={editing.language} choose={setLanguage} />
          )}
          {panel === 'edit' && !part && (
            <>
              <PageForm
                content={content}
                editing={editing}
                styles={styles}
                change={change}
                open={(id, next) => {
                  setLanguage(next)
                  choose(id === '' ? null : id)
                }}
              />
              <LedTo page={page} />
            </>
          )}
          {panel === 'edit' && part && (
            <PartForm
              key={part.id}
              part={part}
              at={content.parts.indexOf(part)}
              count={content.parts.length}
              zone={content.zone}
              editing={editing}
              change={(next) => {
                change(withChanged(content, part.id, () => next))
              }}
              move={(to) => {
                change(withMoved(content, part.id, to))
              }}
              duplicate={() => {
                const made = withCopy(content, part.id)
                change(made.content)
                choose(made.id)
              }}
              remove={() => {
                const at = content.parts.indexOf(part)
                change(withoutPart(content, part.id))
                choose(content.parts[at + 1]?.id ?? content.parts[at - 1]?.id ?? null)
              }}
            />
          )}
        </Sheet>
        {panel !== 'results' && (
          <Box sx={{ position: 'sticky', top: 8 }}>
            <Sheet title="On a phone">
              <PagePreview
                content={content}
                style={styleOf(content, styles, clientId)}
                language={editing.language}
                fileOf={files.fileOf}
              />
            </Sheet>
          </Box>
        )}
      </Box>
    </Box>
  )
}

function LanguageSwitch({
  content,
  language,
  choose,
}: {
  content: PageContent
  language: string
  choose: (language: string) => void
}) {
  return (
    <ToggleButtonGroup
      exclusive
      size="small"
      aria-label="Language that is edited"
      value={language}
      onChange={(_event, next: string | null) => {
        if (next !== null) choose(next)
      }}
      sx={{ mb: 2, flexWrap: 'wrap' }}
    >
      {content.languages.map((tag) => (
        <ToggleButton key={tag} value={tag} sx={{ py: 0.25, textTransform: 'none' }}>
          {languageName(tag)}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  )
}

function LedTo({ page: { campaignId, routes } }: { page: Page }) {
  if (routes.length === 0)
    return (
      <Typography variant="body2" sx={{ mt: 2 }}>
        No route leads here yet. On a route, let a lane lead to “a page”.
      </Typography>
    )
  return (
    <Typography variant="body2" component="div" sx={{ mt: 2 }}>
      Publishing changes what these routes show, at once:
      <Box component="ul" aria-label="Routes that lead here" sx={{ m: 0 }}>
        {routes.map(({ id, name }) => (
          <li key={id}>
            <Link component={RouterLink} to={`/campaigns/${String(campaignId)}/routes?route=${String(id)}`}>
              {name}
            </Link>
          </li>
        ))}
      </Box>
    </Typography>
  )
}
