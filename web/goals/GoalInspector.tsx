import { Button, FormControlLabel, MenuItem, Stack, Switch, TextField, Typography } from '@mui/material'
import { goalsApi, type GoalKind, type GoalRow } from '@flimbo/core/goals'
import equal from 'fast-deep-equal'
import { useEffect, useState } from 'react'
import { faultsIn, sentenceOf, useAnswer, useChange, useVersion } from '../api/index.ts'
import { Conflict, Fault, Inspector, LeaveGuard } from '../ui/index.ts'
import { draftOf, keyOfName, NEW_GOAL, readDraft, type GoalDraft } from './goalForm.ts'
import { Snippets } from './Snippets.tsx'

const KINDS: Readonly<Record<GoalKind, string>> = {
  address: 'A page is opened',
  click: 'Something is clicked',
  sent: 'The site says so',
}

interface Props {
  readonly campaignId: number
  /** Null for a new one. */
  readonly goal: GoalRow | null
  readonly currency: string
  /** The name in the address that says which goal is open. */
  readonly param: string
  readonly close: () => void
  readonly choose: (id: number) => void
}

/** Faults the server found, at their fields. */
const serverFaults = (error: unknown): Map<string, string> =>
  new Map(faultsIn(error).map(({ path, message }) => [path.replace(/^value\./, ''), message]))

/** One goal: what it is, how often it counts, and what the site needs for it. */
export function GoalInspector({ campaignId, goal, currency, param, close, choose }: Props) {
  const stored = goal ? draftOf(goal) : NEW_GOAL
  const [draft, setDraft] = useState<GoalDraft | null>(goal ? null : NEW_GOAL)
  const [faults, setFaults] = useState<ReadonlyMap<string, string>>(new Map())
  const [trouble, setTrouble] = useState<string | null>(null)
  const [createdId, setCreatedId] = useState<number | null>(null)
  // Not before it is known that nothing unsaved is left behind.
  useEffect(() => {
    if (createdId !== null) choose(createdId)
  }, [createdId, choose])
  const create = useChange(goalsApi.create)
  const change = useChange(goalsApi.change)
  const remove = useChange(goalsApi.remove)
  const version = useVersion<GoalRow>(goal?.version ?? 0, draft !== null)
  const site = useAnswer(goalsApi.site, {})
  const shown = draft ?? stored
  const set = (part: Partial<GoalDraft>) => {
    setDraft({ ...shown, ...part })
  }
  const reset = () => {
    setDraft(goal ? null : NEW_GOAL)
    setFaults(new Map())
    setTrouble(null)
    version.rebase()
  }

  async function save(): Promise<void> {
    setTrouble(null)
    const { settings, faults: found } = readDraft(shown)
    setFaults(found)
    if (!settings) return
    try {
      if (goal) {
        const saved = await version.save((from) =>
          change.mutateAsync({ params: { id: goal.id }, body: { value: settings, version: from } }),
        )
        if (saved) setDraft(null)
      } else {
        const { id } = await create.mutateAsync({ body: { campaignId, value: settings } })
        setDraft(null)
        setCreatedId(id)
      }
    } catch (error) {
      setFaults(serverFaults(error))
      setTrouble(sentenceOf(error, 'The goal could not be saved.'))
    }
  }
  const field = (name: keyof GoalDraft, hint = '') => ({
    size: 'small' as const,
    fullWidth: true,
    value: String(shown[name]),
    error: faults.has(name),
    helperText: faults.get(name) ?? hint,
    onChange: ({ target }: { target: { value: string } }) => {
      set({ [name]: target.value })
    },
  })
  const isSaving = create.isPending || change.isPending
  const key = shown.key === '' ? keyOfName(shown.name) : shown.key
  return (
    <Inspector title={goal?.name ?? 'New goal'} close={close}>
      <LeaveGuard isChanged={draft !== null && !equal(draft, stored)} what="goal" param={param} />
      <Stack
        component="form"
        noValidate
        spacing={2}
        onSubmit={(event) => {
          event.preventDefault()
          void save()
        }}
      >
        <TextField label="Name" autoFocus={!goal} {...field('name')} />
        <TextField select label="Reached when" {...field('kind')}>
          {Object.entries(KINDS).map(([kind, label]) => (
            <MenuItem key={kind} value={kind}>
              {label}
            </MenuItem>
          ))}
        </TextField>
        {shown.kind === 'address' && (
          <TextField
            label="Address of the page"
            placeholder="/order/thanks"
            {...field('pattern', 'A path, or host and path. * stands for anything: /order/*/thanks')}
          />
        )}
        {shown.kind === 'click' && (
          <TextField
            label="CSS selector"
            placeholder="#buy"
            {...field('selector', 'What is clicked on the page.')}
          />
        )}
        <TextField
          label="Key"
          placeholder={key}
          {...field('key', 'What the site calls this goal. Made of the name where it is empty.')}
          slotProps={{ inputLabel: { shrink: true } }}
        />
        <TextField
          label={`Worth, in ${currency}`}
          placeholder="nothing"
          {...field('value', 'For each time, where the site sends no value of its own.')}
          slotProps={{ inputLabel: { shrink: true }, htmlInput: { inputMode: 'decimal' } }}
        />
        <TextField select label="Counts" {...field('counts')}>
          <MenuItem value="scan">once for each scan</MenuItem>
          <MenuItem value="each">each time; an order number once</MenuItem>
        </TextField>
        {shown.kind === 'sent' && (
          <FormControlLabel
            control={
              <Switch
                checked={shown.signedOnly}
                onChange={(_event, signedOnly) => {
                  set({ signedOnly })
                }}
              />
            }
            label="Count only signed calls of the site’s server"
          />
        )}
        <FormControlLabel
          control={
            <Switch
              checked={shown.isOn}
              onChange={(_event, isOn) => {
                set({ isOn })
              }}
            />
          }
          label="On"
        />
        <Fault sentence={trouble} />
        {version.newer && (
          <Conflict
            what="goal"
            keepStored={reset}
            overwrite={() => {
              version.rebase()
              void save()
            }}
          />
        )}
        <Stack direction="row" spacing={1}>
          <Button type="submit" variant="contained" disabled={draft === null || isSaving}>
            Save
          </Button>
          {goal && draft !== null && (
            <Button color="inherit" onClick={reset}>
              Discard changes
            </Button>
          )}
          {goal?.lastAt === null && draft === null && (
            <Button
              color="error"
              disabled={remove.isPending}
              onClick={() => {
                remove.mutate({ params: { id: goal.id } }, { onSuccess: close })
              }}
            >
              Delete
            </Button>
          )}
        </Stack>
        <Fault
          sentence={remove.isError ? sentenceOf(remove.error, 'The goal could not be deleted.') : null}
        />
        {goal && draft === null && site.data && (
          <>
            <Typography variant="h3">What the site needs</Typography>
            <Snippets site={site.data} goal={goal} />
          </>
        )}
      </Stack>
    </Inspector>
  )
}
