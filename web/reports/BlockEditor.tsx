import { Button, FormControlLabel, MenuItem, Skeleton, Stack, Switch, TextField } from '@mui/material'
import { answerKinds, CHART_NAMES, questionTitle } from '@flimbo/core/charts'
import {
  ofQuestion,
  REPORT_ROWS_MAX,
  type DrawnAs,
  type ReportBlock,
  type ReportContent,
  type ReportQuestion,
} from '@flimbo/core/reports'
import { filterEntries } from '@flimbo/core/dimensions'
import { daysOf, partedBy, type QuestionView } from '@flimbo/core/results'
import { lazy, Suspense } from 'react'
import { Narrowing, QuestionBar, type AskedResults } from '../results/index.ts'
import { useNow } from '../ui/index.ts'
import { changeBlock, removeBlock } from './editReport.ts'
import { QuestionScope } from './QuestionScope.tsx'

const RichEditor = lazy(async () => ({ default: (await import('../richText/index.ts')).RichEditor }))

interface Props {
  readonly content: ReportContent
  readonly zone: string
  readonly edit: (content: ReportContent) => void
}

/** One part of a report, to be changed or removed. */
export function BlockEditor({ block, remove, ...props }: Props & { block: ReportBlock; remove: () => void }) {
  const { content, edit } = props
  return (
    <Stack spacing={2} role="group" aria-label={block.kind === 'words' ? 'Text' : 'Question'}>
      {block.kind === 'words' ? (
        <Suspense fallback={<Skeleton variant="rounded" height={160} />}>
          <RichEditor
            label="Text"
            value={block.text}
            change={(text) => {
              edit(changeBlock(content, { ...block, text }))
            }}
          />
        </Suspense>
      ) : (
        <QuestionEditor question={block} {...props} />
      )}
      <Button
        color="inherit"
        size="small"
        sx={{ alignSelf: 'flex-start' }}
        onClick={() => {
          edit(removeBlock(content, block.key))
          remove()
        }}
      >
        Remove from the report
      </Button>
    </Stack>
  )
}

const ROWS = [0, 5, 10, 25, 50, REPORT_ROWS_MAX]

function QuestionEditor({ question, content, zone, edit }: Props & { question: ReportQuestion }) {
  const now = useNow()
  const { value, title, hasOwnPeriod, drawnAs, hasPatterns, rows } = question
  const { view } = value
  const change = (part: Partial<ReportQuestion>) => {
    edit(changeBlock(content, { ...question, ...part }))
  }
  const days = daysOf(hasOwnPeriod ? view.period : content.period, zone, now)
  const by = partedBy(view, days)
  const asked: AskedResults = {
    of: ofQuestion(value, content),
    zone,
    campaign: null,
    view,
    ...days,
    isNarrowed: filterEntries(view.filters).length > 0,
    ask(part: Partial<QuestionView>) {
      const { by: parts = view.by, ...rest } = part
      change({ value: { ...value, view: { ...view, ...rest, by: [...parts] } } })
    },
    show: () => undefined,
  }
  const kinds = answerKinds(view.what, by)
  return (
    <Stack spacing={2}>
      <TextField
        size="small"
        label="Title"
        placeholder={questionTitle(view.what, by)}
        value={title}
        slotProps={{ inputLabel: { shrink: true } }}
        onChange={({ target }) => {
          change({ title: target.value })
        }}
      />
      <QuestionScope
        value={value}
        content={content}
        change={(next) => {
          change({ value: next })
        }}
      />
      <QuestionBar asked={asked} hasPeriod={hasOwnPeriod} />
      <Narrowing asked={asked} />
      <FormControlLabel
        control={
          <Switch
            size="small"
            checked={hasOwnPeriod}
            onChange={(_event, on) => {
              change({ hasOwnPeriod: on })
            }}
          />
        }
        label="Days of its own"
      />
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center' }}>
        <TextField
          select
          size="small"
          label="Chart"
          value={drawnAs === 'none' || kinds.some((kind) => kind === drawnAs) ? drawnAs : 'usual'}
          sx={{ width: 150 }}
          onChange={({ target }) => {
            change({ drawnAs: target.value as DrawnAs })
          }}
        >
          <MenuItem value="usual">{CHART_NAMES[kinds[0]]}</MenuItem>
          {kinds.slice(1).map((kind) => (
            <MenuItem key={kind} value={kind}>
              {CHART_NAMES[kind]}
            </MenuItem>
          ))}
          <MenuItem value="none">No chart</MenuItem>
        </TextField>
        <TextField
          select
          size="small"
          label="Table"
          value={String(rows)}
          sx={{ width: 150 }}
          onChange={({ target }) => {
            change({ rows: Number(target.value) })
          }}
        >
          {[...new Set([...ROWS, rows])]
            .sort((a, b) => a - b)
            .map((count) => (
              <MenuItem key={count} value={String(count)}>
                {count === 0 ? 'No table' : `${String(count)} rows`}
              </MenuItem>
            ))}
        </TextField>
        <FormControlLabel
          control={
            <Switch
              size="small"
              checked={hasPatterns}
              onChange={(_event, on) => {
                change({ hasPatterns: on })
              }}
            />
          }
          label="Patterns"
        />
      </Stack>
    </Stack>
  )
}
