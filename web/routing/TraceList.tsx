import { Box, Typography } from '@mui/material'
import { whoInWords } from '@flimbo/core/conditions'
import { addressInWords, type Lane, type TraceStep } from '@flimbo/core/routing'

const LOOKED = {
  code: 'The code',
  route: 'The route',
  life: 'The dates',
  limit: 'The limit',
  password: 'The password',
  location: 'The place',
} as const

function heading(step: TraceStep, lanes: readonly Lane[]): string {
  if (step.look === 'otherwise') return `Otherwise: ${addressInWords(step.saw)}`
  if (step.look !== 'lane' && step.look !== 'split' && step.look !== 'onward')
    return `${LOOKED[step.look]}: ${step.saw}`
  const at = lanes.findIndex(({ id }) => id === step.lane)
  const lane = lanes[at]
  if (step.look === 'split') return `The split chose: ${step.saw}`
  if (step.look === 'onward') return `On to the route: ${step.saw}`
  return `Lane ${at < 0 ? 'of that route' : String(at + 1)} ${step.saw}${lane ? `: ${lane.name === '' ? whoInWords(lane.condition) : lane.name}` : ''}`
}

/** Why a test scan went where it went: every step, and every condition with what it saw. */
export function TraceList({ trace, lanes }: { trace: readonly TraceStep[]; lanes: readonly Lane[] }) {
  return (
    <Box component="ol" aria-label="Why" sx={{ m: 0, pl: 2.5, fontSize: '0.8125rem' }}>
      {trace.map((step, i) => (
        <li key={i}>
          <Typography variant="body2" component="span" sx={{ fontWeight: step.settled ? 650 : 400 }}>
            {heading(step, lanes)}
          </Typography>
          {step.look === 'lane' && (
            <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
              {step.checks.map(({ depth, asks, saw, held }, at) => (
                <Box component="li" key={at} sx={{ pl: depth * 2, color: 'text.secondary' }}>
                  <span aria-hidden>{held ? '●' : '○'}</span> {asks}
                  {saw === '' ? '' : ` – ${saw}`}{' '}
                  <Box component="span" sx={{ fontStyle: 'italic' }}>
                    {held ? 'holds' : 'does not hold'}
                  </Box>
                </Box>
              ))}
            </Box>
          )}
        </li>
      ))}
    </Box>
  )
}
