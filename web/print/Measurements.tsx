import { Box, Button, LinearProgress, Stack, Typography } from '@mui/material'
import {
  correctionSentence,
  costSentence,
  limitsSentence,
  limitWords,
  reasonSentence,
  type ArtworkGrades,
  type FixSet,
  type Readiness,
} from '@flimbo/core/symbol'
import { PrintMark } from '../codes/index.ts'
import { Fact, Facts, Sheet, useKeys } from '../ui/index.ts'
import type { Measured, MeasuredFix } from './proofing.ts'

const percent = (value: number) => `${String(Math.round(value * 100))} %`
const MEASURES: readonly {
  readonly measure: keyof Omit<ArtworkGrades, 'overall' | 'blocks'>
  readonly name: string
  readonly said: (value: number) => string
}[] = [
  { measure: 'contrast', name: 'Symbol contrast', said: percent },
  { measure: 'modulation', name: 'Modulation', said: (value) => value.toFixed(2) },
  { measure: 'fixedPattern', name: 'Fixed patterns', said: (value) => `${percent(value)} wrong` },
  { measure: 'axial', name: 'Axial non-uniformity', said: (value) => value.toFixed(2) },
  { measure: 'correction', name: 'Unused correction', said: percent },
  { measure: 'decode', name: 'Decode', said: (value) => (value > 0 ? 'yes' : 'no') },
]
const WITH_IT: Readonly<Record<Readiness, string>> = {
  ready: 'ready then',
  'look-again': 'to be looked at again then',
  'will-fail': 'not enough by itself',
}

interface Props {
  readonly measured: Measured
  /** Takes what a fix changes. */
  readonly change: (set: FixSet, what: string) => void
}

/** What was measured of the piece as it is drafted: how far it reads, its grades, what speaks against it and what helps. */
export function Measurements({ measured, change }: Props) {
  const { proof, grades, fixes, costs, fault, isStale } = measured
  const apply = ({ set, id }: MeasuredFix) => {
    change(set, `fix ${id}`)
  }
  useKeys(
    Object.fromEntries(
      fixes.map((fix, i) => [
        String(i + 1),
        () => {
          if (!isStale) apply(fix)
        },
      ]),
    ),
  )
  const reasons = proof?.reasons ?? []
  return (
    <Sheet
      title="Preflight"
      aside={
        proof && (
          <Typography component="span" sx={{ fontWeight: 650 }}>
            <PrintMark
              print={{ state: proof.readiness, grade: proof.grades.overall, sentence: '', release: null }}
              isWorded
            />
          </Typography>
        )
      }
    >
      <LinearProgress
        aria-label="Measuring"
        sx={{ mt: -2, mx: -2, mb: 1.75, height: 2, visibility: isStale ? 'visible' : 'hidden' }}
      />
      {fault !== null && <Typography color="error">{fault}</Typography>}
      <Stack sx={{ gap: 1.5 }}>
        <Box role="status" sx={{ minHeight: 22 }}>
          {proof && !reasons.some(({ code }) => code === 'unread') && (
            <Typography sx={{ fontWeight: 650 }}>{limitsSentence(proof.limits)}</Typography>
          )}
          {reasons.map((reason, i) => (
            <Typography key={i} color={proof?.readiness === 'will-fail' ? 'error' : 'warning'}>
              {reasonSentence(reason)}
            </Typography>
          ))}
        </Box>
        {fixes.length > 0 && (
          <Stack component="ol" aria-label="Fixes" sx={{ m: 0, p: 0, listStyle: 'none', gap: 0.5 }}>
            {fixes.map((fix, i) => (
              <Stack key={fix.id} component="li" direction="row" sx={{ gap: 1, alignItems: 'center' }}>
                <Button
                  variant="outlined"
                  disabled={isStale}
                  onClick={() => {
                    apply(fix)
                  }}
                  sx={{ minWidth: 34, px: 0.5 }}
                  aria-label={`${String(i + 1)}: ${fix.sentence}`}
                >
                  {i + 1}
                </Button>
                <Typography variant="body2">
                  {fix.sentence}{' '}
                  <Box component="span" sx={{ color: 'text.secondary' }}>
                    {WITH_IT[fix.readiness]}
                  </Box>
                </Typography>
              </Stack>
            ))}
          </Stack>
        )}
        {proof && (
          <Box component="details" sx={{ '& summary': { cursor: 'pointer', fontSize: '0.8125rem' } }}>
            <summary>How much it stands, condition by condition</summary>
            <Box sx={{ pt: 0.75 }}>
              <Facts>
                {proof.limits.map((limit) => {
                  const { name, value } = limitWords(limit)
                  return (
                    <Fact key={limit.name} name={name}>
                      {value}
                    </Fact>
                  )
                })}
              </Facts>
            </Box>
          </Box>
        )}
        {grades && (
          <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)', gap: 3 }}>
            <Box>
              <Typography variant="h3" sx={{ mb: 0.5 }}>
                Grade of the artwork: {grades.overall}
              </Typography>
              <Facts>
                {MEASURES.map(({ measure, name, said }) => (
                  <Fact key={measure} name={name}>
                    <strong>{grades[measure].grade}</strong> {said(grades[measure].value)}
                  </Fact>
                ))}
              </Facts>
              <Typography variant="caption" color="textSecondary" component="p" sx={{ mt: 0.5 }}>
                By the measures of ISO/IEC 15415. Printing only lowers it.
              </Typography>
            </Box>
            <Box>
              <Typography variant="h3" sx={{ mb: 0.5 }}>
                What each choice costs
              </Typography>
              <Typography variant="body2">{correctionSentence(grades)}</Typography>
              {costs === null && (
                <Typography variant="body2" color="textSecondary">
                  Being measured…
                </Typography>
              )}
              {costs?.length === 0 && (
                <Typography variant="body2" color="textSecondary">
                  Nothing that was chosen costs distance, tilt or grades.
                </Typography>
              )}
              {costs?.map((cost) => (
                <Typography key={cost.choice} variant="body2">
                  {costSentence(cost)}
                </Typography>
              ))}
            </Box>
          </Box>
        )}
      </Stack>
    </Sheet>
  )
}
