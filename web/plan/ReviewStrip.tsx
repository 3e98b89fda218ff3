import { Alert, Button, Chip, Stack, Tooltip, Typography } from '@mui/material'
import type { FindingKind, Review } from '@flimbo/core/tagging'
import { taggingApi } from '@flimbo/core/tagging'
import { useAnswer } from '../api/index.ts'
import { quantity, number } from '@flimbo/core/formats'
import type { Arrangement } from './useArrangement.ts'

const KIND_NAMES: Record<FindingKind, string> = {
  missing: 'missing',
  'personal-data': 'personal data',
  'off-list': 'not on the house’s list',
  'campaign-differs': 'another campaign value',
  'look-alike': 'look-alikes',
  'letter-case': 'capitals',
  spaces: 'spaces',
  escaping: 'characters to escape',
  separator: 'separator',
  length: 'too long',
  'same-tags': 'same tags',
  pattern: 'off the pattern',
  'in-destination': 'tags in the destination',
}

/** What the linter found in the whole campaign: show only those pieces, or fix a whole column. */
export function ReviewStrip({
  campaignId,
  arrangement,
  fix,
}: {
  campaignId: number
  arrangement: Arrangement
  fix: (kind: FindingKind, field: string) => void
}) {
  const review = useAnswer(taggingApi.review, { params: { id: campaignId } })
  const { narrowing, setNarrowing } = arrangement
  if (
    !review.data ||
    (review.data.kinds.length === 0 &&
      review.data.unassigned === 0 &&
      !narrowing.finding &&
      !narrowing.channel)
  )
    return null
  const kinds: Review['kinds'] = review.data.kinds
  const shown = kinds.filter(({ kind }) => kind === narrowing.finding)
  return (
    <Alert
      severity="warning"
      icon={false}
      variant="outlined"
      sx={{ py: 0, '& .MuiAlert-message': { width: '100%', py: 0.5 } }}
    >
      <Stack
        direction="row"
        sx={{ gap: 0.75, flexWrap: 'wrap', alignItems: 'center' }}
        role="group"
        aria-label="Tag warnings"
      >
        <Typography variant="body2" sx={{ mr: 0.5 }}>
          Check before printing:
        </Typography>
        {kinds.map(({ kind, field, pieces, example }) => (
          <Tooltip describeChild key={`${kind} ${field}`} title={example}>
            <Chip
              size="small"
              variant={narrowing.finding === kind ? 'filled' : 'outlined'}
              color={narrowing.finding === kind ? 'primary' : 'default'}
              label={`${field}: ${KIND_NAMES[kind]} · ${number(pieces)}`}
              aria-pressed={narrowing.finding === kind}
              onClick={() => {
                const { finding: _finding, ...rest } = narrowing
                setNarrowing(narrowing.finding === kind ? rest : { ...rest, finding: kind })
              }}
            />
          </Tooltip>
        ))}
        {review.data.unassigned > 0 && (
          <Chip
            size="small"
            variant={narrowing.channel === '-' ? 'filled' : 'outlined'}
            color={narrowing.channel === '-' ? 'primary' : 'default'}
            aria-pressed={narrowing.channel === '-'}
            label={`no channel · ${number(review.data.unassigned)}`}
            onClick={() => {
              const { channel: _channel, ...rest } = narrowing
              setNarrowing(narrowing.channel === '-' ? rest : { ...rest, channel: '-' })
            }}
          />
        )}
        {shown
          .filter(({ fixable, field }) => fixable > 0 && field !== 'campaign')
          .map(({ kind, field, fixable }) => (
            <Button
              key={field}
              size="small"
              variant="contained"
              onClick={() => {
                fix(kind, field)
              }}
            >
              Fix {field} of {quantity(fixable, 'piece')}
            </Button>
          ))}
      </Stack>
    </Alert>
  )
}
