import { Box, Button, Stack, Typography } from '@mui/material'
import { checksApi, isFailure, type Check } from '@flimbo/core/checks'
import { missingVisits, resultsApi, type MissingReason, type MissingVerdict } from '@flimbo/core/results'
import { codesApi } from '@flimbo/core/codes'
import { sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { Fault, PanelButton, useNow } from '../ui/index.ts'
import type { AskedResults } from './useResults.ts'

const NAMES: Readonly<Record<MissingReason, string>> = {
  nobody: 'Nobody scanned it',
  tests: 'Only test scans',
  elsewhere: 'Scans were not sent to the site',
  failing: 'The address does not answer',
  tags: 'The tags are lost on the way',
  early: 'It is too early',
  channel: 'The medium is in no channel',
  few: 'Too few visitors',
}
const MARKS: Readonly<Record<string, readonly [sign: string, words: string]>> = {
  yes: ['✕', 'holds'],
  maybe: ['?', 'may play a part'],
  no: ['✓', 'does not hold'],
  null: ['–', 'not known'],
}

/** The address on whose redirect tags were lost; null where the first address has none of them. */
export function lostAt({ hops, lost }: Pick<Check, 'hops' | 'lost'>): string | null {
  const has = (address: string) => lost.every((name) => new URL(address).searchParams.has(name))
  const first = hops.findIndex(({ address }) => !has(address))
  return hops[first - 1]?.address ?? null
}

/** Goes through why an analytics suite may not show the visits of a piece. */
export function MissingVisits({ asked }: { asked: AskedResults }) {
  const { codeId } = asked.of
  if (codeId === undefined) return null
  return (
    <PanelButton label="Where are my visits?" name="Where are my visits?" align="right" width={520}>
      {() => <Reasons asked={asked} codeId={codeId} />}
    </PanelButton>
  )
}

function Reasons({ asked: { from, to }, codeId }: { asked: AskedResults; codeId: number }) {
  const now = useNow()
  const of = { codeId, from, to }
  const figures = useAnswer(resultsApi.ask, {
    body: { ...of, questions: [{}, { by: ['outcome'] }, { by: ['channel'] }] },
  })
  const summary = useAnswer(resultsApi.get, { query: of })
  const code = useAnswer(codesApi.get, { params: { id: codeId } })
  const follow = useChange(checksApi.code)
  const [all, byOutcome, byChannel] = figures.data?.answers ?? []
  if (!all || !summary.data || !code.data) return <Typography variant="body2">Reading…</Typography>
  const check = follow.data
  const verdicts = missingVisits({
    scans: all.total.scans,
    uniques: all.total.uniques,
    redirected: byOutcome?.rows.find(({ keys }) => keys[0] === 'redirect')?.scans ?? 0,
    tests: summary.data.apart.find(({ kind }) => kind === 'test')?.requests ?? 0,
    lastAt: summary.data.ever.lastAt,
    medium: code.data.medium,
    channel: byChannel?.rows.find(({ scans }) => scans > 0)?.keys[0] ?? '',
    check: check
      ? {
          isReached: !isFailure(check.verdict),
          lost: check.lost,
          lostAt: lostAt(check),
          sentence: check.sentence,
        }
      : null,
    now,
  })
  return (
    <>
      <Typography variant="h2">Where are my visits?</Typography>
      <Typography variant="body2" color="textSecondary" sx={{ mb: 1.5 }}>
        Why an analytics suite may show no visit of “{code.data.name}”, though it was scanned.
      </Typography>
      <Button
        variant="outlined"
        disabled={follow.isPending}
        onClick={() => {
          follow.mutate({ params: { id: codeId } })
        }}
      >
        {follow.isPending ? 'Following the address…' : 'Follow the address now'}
      </Button>
      <Fault
        sentence={follow.isError ? sentenceOf(follow.error, 'The address could not be followed.') : null}
      />
      <Stack component="ul" aria-label="Reasons" sx={{ listStyle: 'none', m: 0, mt: 1.5, p: 0, gap: 1 }}>
        {verdicts.map((verdict) => (
          <Reason key={verdict.reason} verdict={verdict} />
        ))}
      </Stack>
    </>
  )
}

function Reason({ verdict: { reason, holds, sentence } }: { verdict: MissingVerdict }) {
  const [sign = '', words = ''] = MARKS[String(holds)] ?? []
  return (
    <Stack component="li" direction="row" sx={{ gap: 1 }}>
      <Box
        aria-hidden
        sx={{ width: 18, fontWeight: 650, color: holds === 'yes' ? 'error.main' : 'text.secondary' }}
      >
        {sign}
      </Box>
      <Typography variant="body2" sx={{ flex: 1 }}>
        <Box component="span" sx={{ fontWeight: 650 }}>
          {NAMES[reason]}
        </Box>{' '}
        ({words}). {sentence}
      </Typography>
    </Stack>
  )
}
