import AddIcon from '@mui/icons-material/Add'
import DeleteIcon from '@mui/icons-material/DeleteOutlineOutlined'
import { Button, FormControlLabel, IconButton, Stack, Switch, TextField, Typography } from '@mui/material'
import type { OwnParameter } from '@flimbo/core/tagging'

const PARAMETERS_MAX = 10

interface Props {
  readonly parameters: readonly OwnParameter[]
  readonly faultOf: (path: string) => string | undefined
  readonly change: (parameters: OwnParameter[]) => void
}

/** Parameters that a workspace adds to its addresses, beside the UTM ones. */
export function Parameters({ parameters, faultOf, change }: Props) {
  return (
    <Stack spacing={1}>
      <Typography variant="h3">Parameters of your own</Typography>
      <Typography variant="body2" color="textSecondary">
        Every piece may carry them beside the UTM ones.
      </Typography>
      {parameters.map((parameter, i) => {
        const put = (part: Partial<typeof parameter>) => {
          change(parameters.map((each, j) => (j === i ? { ...each, ...part } : each)))
        }
        return (
          <Stack key={i} direction="row" sx={{ gap: 1, alignItems: 'center' }}>
            <TextField
              size="small"
              label="Name in the address"
              value={parameter.name}
              onChange={(event) => {
                put({ name: event.target.value })
              }}
              error={faultOf(`parameters.${String(i)}.name`) !== undefined}
            />
            <TextField
              size="small"
              label="Label"
              value={parameter.label}
              onChange={(event) => {
                put({ label: event.target.value })
              }}
              error={faultOf(`parameters.${String(i)}.label`) !== undefined}
            />
            <FormControlLabel
              label="required"
              control={
                <Switch
                  checked={parameter.required}
                  onChange={(_event, on) => {
                    put({ required: on })
                  }}
                />
              }
            />
            <IconButton
              aria-label={`Remove ${parameter.name || 'this parameter'}`}
              onClick={() => {
                change(parameters.filter((_each, j) => j !== i))
              }}
            >
              <DeleteIcon fontSize="small" />
            </IconButton>
          </Stack>
        )
      })}
      <Button
        startIcon={<AddIcon />}
        sx={{ alignSelf: 'flex-start' }}
        disabled={parameters.length >= PARAMETERS_MAX}
        onClick={() => {
          change([...parameters, { name: '', label: '', required: false }])
        }}
      >
        Add parameter
      </Button>
    </Stack>
  )
}
