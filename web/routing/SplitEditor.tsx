import AddIcon from '@mui/icons-material/Add'
import CloseIcon from '@mui/icons-material/Close'
import { Alert, Box, Button, FormControlLabel, IconButton, Stack, Switch, TextField } from '@mui/material'
import { share } from '@flimbo/core/formats'
import { VARIANTS_MAX, type LaneOutcome, type Variant } from '@flimbo/core/routing'
import { NumberField } from '../conditions/index.ts'
import { AnswerEditor, FRESH_ADDRESS } from './AnswerEditor.tsx'
import { freshKey } from '../ui/index.ts'

export const newVariant = (id: string, name: string): Variant => ({
  id,
  name,
  weight: 50,
  ended: false,
  leads: FRESH_ADDRESS,
})

/** The variants of a split, by their weights. */
export function SplitEditor({
  variants,
  change,
}: {
  variants: readonly Variant[]
  change: (outcome: LaneOutcome) => void
}) {
  const sum = variants.reduce((total, { weight, ended }) => total + (ended ? 0 : weight), 0)
  const set = (at: number, next: Variant) => {
    change({ kind: 'split', variants: variants.map((each, i) => (i === at ? next : each)) })
  }
  return (
    <Stack sx={{ gap: 1 }}>
      {sum === 0 && (
        <Alert severity="warning" variant="outlined">
          All weights together are 0: the lane takes nobody.
        </Alert>
      )}
      {variants.map((each, i) => (
        <VariantEditor
          key={each.id}
          variant={each}
          sum={sum}
          change={(next) => {
            set(i, next)
          }}
          remove={
            variants.length > 2
              ? () => {
                  change({ kind: 'split', variants: variants.filter((_v, at) => at !== i) })
                }
              : null
          }
        />
      ))}
      {variants.length < VARIANTS_MAX && (
        <Button
          startIcon={<AddIcon />}
          sx={{ alignSelf: 'flex-start' }}
          onClick={() => {
            const id = freshKey(
              'l',
              variants.map((v) => v.id),
            )
            change({
              kind: 'split',
              variants: [...variants, newVariant(id, String.fromCharCode(65 + variants.length))],
            })
          }}
        >
          Add variant
        </Button>
      )}
    </Stack>
  )
}

function VariantEditor({
  variant,
  sum,
  change,
  remove,
}: {
  variant: Variant
  /** All weights that count. */
  sum: number
  change: (variant: Variant) => void
  /** Null where no fewer variants would be a split. */
  remove: (() => void) | null
}) {
  return (
    <Box
      role="group"
      aria-label={`Variant ${variant.name}`}
      sx={{ border: 1, borderColor: 'divider', borderRadius: 1, p: 1 }}
    >
      <Stack direction="row" sx={{ gap: 1, alignItems: 'center', mb: 1 }}>
        <TextField
          size="small"
          label="Variant"
          value={variant.name}
          onChange={({ target }) => {
            change({ ...variant, name: target.value })
          }}
          sx={{ flex: 1 }}
        />
        <NumberField
          label="Weight"
          value={variant.weight}
          step={1}
          change={(weight) => {
            change({ ...variant, weight: weight ?? Number.NaN })
          }}
          width={84}
        />
        <Box sx={{ minWidth: 44, textAlign: 'right', fontSize: '0.8125rem' }}>
          {variant.ended ? 'ended' : share(variant.weight, sum)}
        </Box>
        {remove && (
          <IconButton size="small" aria-label={`Remove the variant ${variant.name}`} onClick={remove}>
            <CloseIcon fontSize="inherit" />
          </IconButton>
        )}
      </Stack>
      <AnswerEditor
        label="Leads to"
        answer={variant.leads}
        change={(leads) => {
          if (leads) change({ ...variant, leads })
        }}
      />
      <FormControlLabel
        label="Ended: its visitors are shared among the others"
        control={
          <Switch
            size="small"
            checked={variant.ended}
            onChange={(_event, ended) => {
              change({ ...variant, ended })
            }}
          />
        }
        slotProps={{ typography: { variant: 'body2' } }}
      />
    </Box>
  )
}
