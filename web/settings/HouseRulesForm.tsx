import { Checkbox, FormControlLabel, MenuItem, Skeleton, Stack, TextField } from '@mui/material'
import { houseRules, taggingApi, type HouseRules } from '@flimbo/core/tagging'
import { Sheet, Trouble } from '../ui/index.ts'
import { ContentPattern } from './ContentPattern.tsx'
import { Parameters } from './Parameters.tsx'
import { SaveBar } from './SaveBar.tsx'
import { useSetting } from './useSetting.ts'

/** How this workspace writes its tags: the linter, the form and imports all go by it. */
export function HouseRulesForm() {
  const setting = useSetting<HouseRules>(taggingApi.rules, taggingApi.changeRules, houseRules)
  const { value } = setting
  if (setting.answer.isError) return <Trouble error={setting.answer.error} />
  if (!value) return <Skeleton variant="rounded" height={420} />
  const change = (part: Partial<HouseRules>) => {
    setting.set({ ...value, ...part })
  }
  return (
    <Sheet title="House rules for tags">
      <Stack spacing={2.5}>
        <Stack direction="row" sx={{ gap: 2, flexWrap: 'wrap' }}>
          <TextField
            select
            size="small"
            label="Letter case"
            value={value.letterCase}
            onChange={(event) => {
              change({ letterCase: event.target.value as HouseRules['letterCase'] })
            }}
            sx={{ minWidth: 200 }}
          >
            <MenuItem value="lower">small letters only</MenuItem>
            <MenuItem value="any">as they come</MenuItem>
          </TextField>
          <TextField
            select
            size="small"
            label="Word separator"
            value={value.separator}
            onChange={(event) => {
              change({ separator: event.target.value as HouseRules['separator'] })
            }}
            sx={{ minWidth: 200 }}
          >
            <MenuItem value="-">a dash: pier-poster</MenuItem>
            <MenuItem value="_">an underscore: pier_poster</MenuItem>
            <MenuItem value="any">either</MenuItem>
          </TextField>
        </Stack>
        <Stack direction="row" sx={{ gap: 2, flexWrap: 'wrap', alignItems: 'flex-start' }}>
          <TextField
            size="small"
            multiline
            minRows={2}
            maxRows={10}
            label="Allowed media, one per line"
            value={value.media.join('\n')}
            sx={{ width: 320 }}
            helperText="Empty: every medium is allowed."
            onChange={(event) => {
              change({ media: event.target.value === '' ? [] : event.target.value.split('\n') })
            }}
          />
          <TextField
            select
            size="small"
            label="A medium that is not allowed"
            value={value.offList}
            disabled={value.media.length === 0}
            onChange={(event) => {
              change({ offList: event.target.value as HouseRules['offList'] })
            }}
            sx={{ minWidth: 220 }}
          >
            <MenuItem value="warn">is taken, with a warning</MenuItem>
            <MenuItem value="refuse">is refused</MenuItem>
          </TextField>
        </Stack>
        <Stack direction="row" role="group" aria-label="Required beside medium, source and campaign">
          {(['content', 'term'] as const).map((field) => (
            <FormControlLabel
              key={field}
              label={`Every piece needs a ${field}`}
              control={
                <Checkbox
                  checked={value.required.includes(field)}
                  onChange={(_event, on) => {
                    change({
                      required: on
                        ? [...value.required, field]
                        : value.required.filter((each) => each !== field),
                    })
                  }}
                />
              }
            />
          ))}
        </Stack>
        <ContentPattern
          rules={value}
          change={(contentPattern) => {
            change({ contentPattern })
          }}
        />
        <Parameters
          parameters={value.parameters}
          faultOf={setting.faultOf}
          change={(parameters) => {
            change({ parameters })
          }}
        />
        <SaveBar setting={setting} />
      </Stack>
    </Sheet>
  )
}
