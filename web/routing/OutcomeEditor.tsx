import AddIcon from '@mui/icons-material/Add'
import CloseIcon from '@mui/icons-material/Close'
import { Alert, Box, Button, FormControlLabel, IconButton, Stack, Switch, TextField } from '@mui/material'
import type { Page } from '@flimbo/core/pages'
import { VARIANTS_MAX, type Lane, type LaneOutcome, type Variant, type RouteName } from '@flimbo/core/routing'
import { NumberField, Pick } from '../conditions/index.ts'
import { usePages } from '../pages/index.ts'
import { share } from '@flimbo/core/formats'
import { AnswerEditor, AnswerFields, FRESH_ADDRESS } from './AnswerEditor.tsx'
import { freshKey } from './freshKey.ts'

const KINDS = [
  ['address', 'an address'],
  ['page', 'a page'],
  ['split', 'a split of variants'],
  ['message', 'a message'],
  ['route', 'another route'],
] as const

const variant = (id: string, name: string): Variant => ({
  id,
  name,
  weight: 50,
  ended: false,
  leads: FRESH_ADDRESS,
})

function fresh(
  kind: string,
  was: LaneOutcome,
  others: readonly RouteName[],
  pages: readonly Page[],
): LaneOutcome {
  if (kind === 'split')
    return {
      kind: 'split',
      variants: [
        { ...variant('a', 'A'), leads: was.kind === 'address' ? was : FRESH_ADDRESS },
        variant('b', 'B'),
      ],
    }
  if (kind === 'message') return { kind: 'message', title: '', text: '' }
  if (kind === 'page') return { kind: 'page', pageId: pages[0]?.id ?? 0 }
  if (kind === 'route') return { kind: 'route', routeId: others[0]?.id ?? 0 }
  return was.kind === 'split' && was.variants[0]?.leads.kind === 'address'
    ? was.variants[0].leads
    : { kind: 'address', address: '' }
}

/** What a lane does with its scans. */
export function OutcomeEditor({
  lane,
  others,
  change,
}: {
  lane: Lane
  others: readonly RouteName[]
  change: (outcome: LaneOutcome) => void
}) {
  const { outcome } = lane
  const pages = usePages()
  const kind = (
    <Pick
      label="Leads to"
      value={outcome.kind}
      choices={KINDS.filter(([each]) => each !== 'route' || others.length > 0 || outcome.kind === 'route')}
      change={(next) => {
        change(fresh(next, outcome, others, pages))
      }}
    />
  )
  if (outcome.kind === 'address' || outcome.kind === 'message' || outcome.kind === 'page')
    return (
      <Stack sx={{ gap: 1 }}>
        {kind}
        <AnswerFields answer={outcome} change={change} />
      </Stack>
    )
  if (outcome.kind === 'route') {
    return (
      <Stack sx={{ gap: 1 }}>
        {kind}
        <Pick
          label="Route"
          value={String(outcome.routeId)}
          choices={[
            ...others.map(({ id, name }) => [String(id), name] as const),
            ...(others.some(({ id }) => id === outcome.routeId)
              ? []
              : [[String(outcome.routeId), 'A route of another campaign'] as const]),
          ]}
          change={(id) => {
            change({ kind: 'route', routeId: Number(id) })
          }}
        />
      </Stack>
    )
  }
  const { variants } = outcome
  const sum = variants.reduce((total, { weight, ended }) => total + (ended ? 0 : weight), 0)
  const set = (at: number, next: Variant) => {
    change({ kind: 'split', variants: variants.map((each, i) => (i === at ? next : each)) })
  }
  return (
    <Stack sx={{ gap: 1 }}>
      {kind}
      {sum === 0 && (
        <Alert severity="warning" variant="outlined">
          All weights together are 0: the lane takes nobody.
        </Alert>
      )}
      {variants.map((each, i) => (
        <Box
          key={each.id}
          role="group"
          aria-label={`Variant ${each.name}`}
          sx={{ border: 1, borderColor: 'divider', borderRadius: 1, p: 1 }}
        >
          <Stack direction="row" sx={{ gap: 1, alignItems: 'center', mb: 1 }}>
            <TextField
              size="small"
              label="Variant"
              value={each.name}
              onChange={({ target }) => {
                set(i, { ...each, name: target.value })
              }}
              sx={{ flex: 1 }}
            />
            <NumberField
              label="Weight"
              value={each.weight}
              step={1}
              change={(weight) => {
                set(i, { ...each, weight: weight ?? Number.NaN })
              }}
              width={84}
            />
            <Box sx={{ minWidth: 44, textAlign: 'right', fontSize: '0.8125rem' }}>
              {each.ended ? 'ended' : share(each.weight, sum)}
            </Box>
            {variants.length > 2 && (
              <IconButton
                size="small"
                aria-label={`Remove the variant ${each.name}`}
                onClick={() => {
                  change({ kind: 'split', variants: variants.filter((_v, at) => at !== i) })
                }}
              >
                <CloseIcon fontSize="inherit" />
              </IconButton>
            )}
          </Stack>
          <AnswerEditor
            label="Leads to"
            answer={each.leads}
            change={(leads) => {
              if (leads) set(i, { ...each, leads })
            }}
          />
          <FormControlLabel
            label="Ended: its visitors are shared among the others"
            control={
              <Switch
                size="small"
                checked={each.ended}
                onChange={(_event, ended) => {
                  set(i, { ...each, ended })
                }}
              />
            }
            slotProps={{ typography: { variant: 'body2' } }}
          />
        </Box>
      ))}
      {variants.length < VARIANTS_MAX && (
        <Button
          startIcon={<AddIcon />}
          sx={{ alignSelf: 'flex-start' }}
          onClick={() => {
            const id = freshKey(variants.map((v) => v.id))
            change({
              kind: 'split',
              variants: [...variants, variant(id, String.fromCharCode(65 + variants.length))],
            })
          }}
        >
          Add variant
        </Button>
      )}
    </Stack>
  )
}
