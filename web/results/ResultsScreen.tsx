import { Box, LinearProgress, Skeleton, Stack, Typography } from '@mui/material'
import { isOfKind, toggleKey } from '@flimbo/core/dimensions'
import {
  againstName,
  isForecast,
  partedBy,
  resultsApi,
  viewAgainst,
  viewQuestions,
  type SavedValue,
} from '@flimbo/core/results'
import { chartMarks, type ExpectedPiece } from '@flimbo/core/charts'
import { unusualApi } from '@flimbo/core/unusual'
import { workspaceApi } from '@flimbo/core/workspace'
import { useMemo, type ComponentType } from 'react'
import { useSearchParams } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { Trouble } from '../ui/index.ts'
import { WatchButton } from '../watches/index.ts'
import { AnswerSheet } from './AnswerSheet.tsx'
import { FoldedNote } from './FoldedNote.tsx'
import { HowMany } from './HowMany.tsx'
import { LastHour } from './LastHour.tsx'
import { Marks } from './Marks.tsx'
import { MissingVisits } from './MissingVisits.tsx'
import { MoreThanChance } from './MoreThanChance.tsx'
import { Narrowing } from './Narrowing.tsx'
import { OnPages } from './OnPages.tsx'
import { Panels } from './Panels.tsx'
import { QuestionBar } from './QuestionBar.tsx'
import { RowsBehind } from './RowsBehind.tsx'
import { SavedQuestions } from './SavedQuestions.tsx'
import { ScopeChoice } from './ScopeChoice.tsx'
import { SplitTestsSheet } from './SplitTestsSheet.tsx'
import { ToWhatEnd } from './ToWhatEnd.tsx'
import { WhatNextSheet } from './WhatNextSheet.tsx'
import { savedValueOf, useResults, type AskedResults } from './useResults.ts'

const NONE: readonly string[] = []
const NOTHING_EXPECTED: readonly ExpectedPiece[] = []

/** What is watched, in a word. */
function nameOf({ of: { codeId, routeId } }: AskedResults): string {
  if (codeId !== undefined) return 'this piece'
  return routeId === undefined ? 'this campaign' : 'this route'
}

/** What came of a piece, a route, a campaign, a client or everything: one question, and the same figures by all else. */
export function ResultsScreen({
  AddToReport,
}: {
  /** Puts what is asked into a report. */
  AddToReport?: ComponentType<{ value: SavedValue; campaignId: number | null }>
}) {
  const asked = useResults()
  const { of, zone, campaign, view, from, to } = asked
  const currency = useAnswer(workspaceApi.settings, {}).data?.value.currency ?? 'EUR'
  const by = useMemo(() => partedBy(view, { from, to }), [view, from, to])
  const figures = useAnswer(resultsApi.ask, {
    body: { ...of, from, to, ...viewAgainst(view, of.campaignId), questions: viewQuestions(view, by) },
  })
  const summary = useAnswer(resultsApi.get, { query: { ...of, from, to } })
  const [total, answer] = figures.data?.answers ?? []
  const [unit] = by
  const marks = useMemo(() => chartMarks(summary.data?.marks ?? [], unit, zone), [summary.data, unit, zone])
  const isExpected = isForecast(view, by)
  const forecast = useAnswer(unusualApi.expected, { query: { ...of, from, to } }, { enabled: isExpected })
  const expected = useMemo(
    () =>
      isExpected
        ? (forecast.data?.rows ?? []).map(({ day, ...rest }) => ({ key: day, ...rest }))
        : NOTHING_EXPECTED,
    [isExpected, forecast.data],
  )
  const fault = figures.error ?? summary.error

  return (
    <Box sx={{ p: 2, width: '100%', maxWidth: 1440, mx: 'auto' }}>
      <Stack direction="row" sx={{ gap: 2, mb: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography variant="h1" sx={{ flex: 1 }}>
          Results
        </Typography>
        <MissingVisits asked={asked} />
        <SavedQuestions asked={asked} />
        {AddToReport && <AddToReport value={savedValueOf(asked)} campaignId={campaign?.id ?? null} />}
        {campaign && <WatchButton scope={of} name={nameOf(asked)} />}
        <ScopeChoice asked={asked} />
      </Stack>
      <QuestionBar asked={asked} />
      <Narrowing asked={asked} />
      <Box sx={{ height: 4, mt: 1 }}>
        {figures.isFetching && figures.isPlaceholderData && (
          <LinearProgress aria-label="Reading" sx={{ height: 2 }} />
        )}
      </Box>
      {fault && (
        <Trouble
          error={fault}
          retry={() => {
            void figures.refetch()
            void summary.refetch()
          }}
        />
      )}
      <Stack spacing={2}>
        <FoldedNote
          rowsSince={figures.data?.rowsSince ?? null}
          zone={zone}
          first={figures.data?.before?.from ?? from}
          isLeftOut={figures.data?.answers.some((each) => each.leavesOutFolded) ?? false}
        />
        <LastHour asked={asked} />
        <HowMany
          total={total?.total}
          summary={summary.data}
          currency={currency}
          zone={zone}
          from={from}
          to={to}
          before={figures.data?.before ?? null}
          isNarrowed={asked.isNarrowed}
        />
        {answer ? (
          <AnswerSheet
            what={view.what}
            by={by}
            answer={answer}
            currency={currency}
            zone={zone}
            from={from}
            to={to}
            against={againstName(view.against, figures.data?.before ?? null)}
            marks={marks}
            expected={expected}
            chosen={(by[0] && view.filters[by[0]]) ?? NONE}
            choose={(keys) => {
              asked.ask({
                filters: by.reduce((all, dimension, side) => {
                  const key = keys[side]
                  return key === undefined ? all : toggleKey(all, dimension, key)
                }, view.filters),
              })
            }}
          />
        ) : (
          <Skeleton variant="rounded" height={320} />
        )}
        <MoreThanChance what={view.what} by={by} answer={answer} before={figures.data?.before ?? null} />
        {summary.data && unit && isOfKind(unit, 'time') && <Marks summary={summary.data} asked={asked} />}
        <Panels asked={asked} currency={currency} />
        {total && <ToWhatEnd asked={asked} total={total.total} currency={currency} />}
        <SplitTestsSheet asked={asked} />
        <WhatNextSheet asked={asked} currency={currency} />
        {campaign && <OnPages key={JSON.stringify(of)} scope={of} from={from} to={to} zone={zone} />}
        <Behind asked={asked} />
      </Stack>
    </Box>
  )
}

/** The rows of all this, or those of one lane where the address names it. */
function Behind({ asked: { of, zone, from, to, view } }: { asked: AskedResults }) {
  const [address, setAddress] = useSearchParams()
  const exit = of.routeId === undefined ? undefined : (address.get('exit') ?? undefined)
  return (
    <RowsBehind
      key={JSON.stringify([of, exit])}
      of={of}
      filters={view.filters}
      from={from}
      to={to}
      zone={zone}
      exit={exit}
      lane={address.get('lane')}
      all={() => {
        setAddress((old) => {
          old.delete('exit')
          old.delete('lane')
          return old
        })
      }}
    />
  )
}
