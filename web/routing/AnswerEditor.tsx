import { Link, Stack, TextField, Typography } from '@mui/material'
import { useEffect } from 'react'
import { destination, PLACEHOLDERS, type Answer } from '@flimbo/core/routing'
import { Link as RouterLink } from 'react-router'
import { Pick } from '../conditions/index.ts'
import { useCampaignIfAny } from '../campaigns/index.ts'
import { FileDestination, PagePick, usePages } from '../pages/index.ts'
import { completedAddress } from '../ui/index.ts'

export const FRESH_ADDRESS: Answer = { kind: 'address', address: '' }
const FRESH_MESSAGE: Answer = { kind: 'message', title: '', text: '' }
export const PLACEHOLDER_HINT = `May carry ${PLACEHOLDERS.map((name) => `{${name}}`).join(', ')}`

function freshAnswer(kind: string, pageId: number): Answer | null {
  if (kind === 'plain') return null
  if (kind === 'message') return FRESH_MESSAGE
  return kind === 'page' ? { kind: 'page', pageId } : FRESH_ADDRESS
}

/** An address as it is typed, with what is wrong with it. */
export function AddressField({
  label,
  value,
  change,
  inputRef,
}: {
  label: string
  value: string
  change: (value: string) => void
  inputRef?: React.Ref<HTMLInputElement>
}) {
  const checked = destination.safeParse(value)
  const fault = checked.success ? null : checked.error.issues[0]?.message
  return (
    <TextField
      size="small"
      fullWidth
      label={label}
      value={value}
      placeholder="https://"
      error={fault !== null && value !== ''}
      helperText={fault ?? completedAddress(value) ?? PLACEHOLDER_HINT}
      multiline
      maxRows={4}
      onChange={({ target }) => {
        change(target.value.replace(/[\r\n]/g, ''))
      }}
      slotProps={{ htmlInput: { ref: inputRef } }}
    />
  )
}

/** One of the pages there are. */
export function PageChoice({ pageId, change }: { pageId: number; change: (pageId: number) => void }) {
  const pages = usePages()
  const campaign = useCampaignIfAny()
  const page = pages.find(({ id }) => id === pageId)
  const [first] = pages
  // "a page" was chosen before it was known which pages there are.
  useEffect(() => {
    if (pageId === 0 && first) change(first.id)
  }, [pageId, first, change])
  const file = campaign && <FileDestination campaignId={campaign.id} made={change} />
  if (pages.length === 0)
    return (
      <>
        <Typography variant="body2">
          There is no page yet. Make one under Pages, or lead to a file.
        </Typography>
        {file}
      </>
    )
  return (
    <>
      <PagePick
        label="Page"
        value={pageId}
        change={(chosen) => {
          if (chosen !== null) change(chosen)
        }}
      />
      {page && (
        <Link
          component={RouterLink}
          variant="body2"
          to={`/campaigns/${String(page.campaignId)}/pages?page=${String(page.id)}`}
        >
          Edit this page
        </Link>
      )}
      {file}
    </>
  )
}

/** Where something leads: an address, a page, or a few words. `plain` offers Flimbo's own words instead. */
export function AnswerEditor({
  label,
  answer,
  change,
  plain,
}: {
  label: string
  answer: Answer | null
  change: (answer: Answer | null) => void
  plain?: string
}) {
  const pages = usePages()
  return (
    <Stack sx={{ gap: 1 }}>
      <Pick
        label={label}
        value={answer?.kind ?? 'plain'}
        choices={[
          ...(plain === undefined ? [] : [['plain', plain] as const]),
          ['address', 'an address'],
          ['page', 'a page or file'],
          ['message', 'a message'],
        ]}
        change={(kind) => {
          change(freshAnswer(kind, pages[0]?.id ?? 0))
        }}
      />
      {answer && <AnswerFields answer={answer} change={change} />}
    </Stack>
  )
}

/** What there is to fill in of one kind of answer. */
export function AnswerFields({ answer, change }: { answer: Answer; change: (answer: Answer) => void }) {
  return (
    <>
      {answer.kind === 'address' && (
        <AddressField
          label="Address"
          value={answer.address}
          change={(address) => {
            change({ kind: 'address', address })
          }}
        />
      )}
      {answer.kind === 'page' && (
        <PageChoice
          pageId={answer.pageId}
          change={(pageId) => {
            change({ kind: 'page', pageId })
          }}
        />
      )}
      {answer.kind === 'message' && (
        <>
          <TextField
            size="small"
            label="Title"
            value={answer.title}
            error={answer.title.trim() === ''}
            helperText={answer.title.trim() === '' ? 'Give a title.' : undefined}
            onChange={({ target }) => {
              change({ ...answer, title: target.value })
            }}
          />
          <TextField
            size="small"
            label="Text"
            value={answer.text}
            onChange={({ target }) => {
              change({ ...answer, text: target.value.replace(/[\r\n]+/g, ' ') })
            }}
            multiline
            maxRows={6}
          />
          <Typography variant="caption" color="textSecondary">
            Shown on a page of Flimbo’s front door, in plain type.
          </Typography>
        </>
      )}
    </>
  )
}
