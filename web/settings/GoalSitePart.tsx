import {
  Button,
  Dialog,
  DialogContent,
  DialogTitle,
  FormControlLabel,
  Skeleton,
  Stack,
  Switch,
  TextField,
  Typography,
} from '@mui/material'
import { goalsApi, siteSettings, snippets, type GoalSite, type SiteSettings } from '@flimbo/core/goals'
import { useState } from 'react'
import { sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { Snippet } from '../goals/index.ts'
import { useSession } from '../session/index.ts'
import { Copyable, DialogButtons, Fault, Sheet, Trouble, When } from '../ui/index.ts'
import { SaveBar } from './SaveBar.tsx'
import { useSetting } from './useSetting.ts'

/** How the workspace's sites report goals: the script, who may, and the secret of their servers. */
export function GoalSitePart() {
  const setting = useSetting<SiteSettings>(goalsApi.site, goalsApi.changeSite, siteSettings)
  const { zone } = useSession().workspace
  const { value } = setting
  if (setting.answer.isError) return <Trouble error={setting.answer.error} />
  if (!value) return <Skeleton variant="rounded" height={420} />
  // The endpoint answers more than the value and its version.
  const site = setting.answer.data as GoalSite
  const made = snippets(site, '')
  return (
    <>
      <Sheet
        title="Goals on sites"
        aside={
          <Typography variant="body2" color="textSecondary">
            {site.lastAt === null ? (
              'No site has reported yet'
            ) : (
              <>
                Last report <When at={site.lastAt} zone={zone} />
              </>
            )}
          </Typography>
        }
      >
        <Stack spacing={2} sx={{ maxWidth: 860 }}>
          <Typography variant="body2">
            One script serves all campaigns. It is smaller than 2 kB, sets no cookie, and does nothing for
            visitors whom no scan brought. Each campaign says under Results › Goals what is wanted.
          </Typography>
          <Snippet title="In the head of every page" text={made.head} />
          <Snippet
            title="Or in a tag container"
            note="As a tag of your own HTML, on all pages."
            text={made.container}
          />
          <FormControlLabel
            control={
              <Switch
                checked={value.honoursSignals}
                onChange={(_event, honoursSignals) => {
                  setting.set({ ...value, honoursSignals })
                }}
              />
            }
            label="Leave out visitors who ask not to be tracked (Do Not Track, Global Privacy Control)"
          />
          <Origins
            value={value.origins}
            fault={faultOf(setting.faults)}
            set={(origins) => {
              setting.set({ ...value, origins })
            }}
          />
          <SaveBar setting={setting} />
        </Stack>
      </Sheet>
      <Secret setting={{ value, version: site.version }} isBusy={setting.isDirty || setting.saving} />
    </>
  )
}

const faultOf = (faults: readonly { path: string; message: string }[]) =>
  faults.find(({ path }) => path.startsWith('origins'))?.message

/** One site a line; what is typed stays as it is until it is saved. */
function Origins({
  value,
  fault,
  set,
}: {
  value: readonly string[]
  fault: string | undefined
  set: (origins: string[]) => void
}) {
  const [text, setText] = useState<string | null>(null)
  const lines = (typed: string) => typed.split(/[\s,]+/).filter((line) => line !== '')
  const isSame = text !== null && JSON.stringify(lines(text)) === JSON.stringify(value)
  return (
    <TextField
      size="small"
      multiline
      minRows={2}
      maxRows={6}
      label="Sites that may report, one a line"
      placeholder="https://shop.example"
      value={isSame ? text : value.join('\n')}
      error={fault !== undefined}
      helperText={
        fault ?? 'Any site may where none is named: without the reference of a scan nothing counts.'
      }
      slotProps={{ inputLabel: { shrink: true } }}
      onChange={({ target }) => {
        setText(target.value)
        set(lines(target.value))
      }}
    />
  )
}

/** What the servers of sites sign with: seen only by admins, and only when they ask. */
function Secret({
  setting: { value, version },
  isBusy,
}: {
  setting: { value: SiteSettings; version: number }
  isBusy: boolean
}) {
  const { person } = useSession()
  const [isShown, setShown] = useState(false)
  const [isAsking, setAsking] = useState(false)
  const secret = useAnswer(goalsApi.secret, {}, { enabled: isShown })
  const change = useChange(goalsApi.changeSite)
  const close = () => {
    setAsking(false)
  }
  if (person.role !== 'admin') return null
  return (
    <Sheet title="Secret for signed calls">
      <Stack spacing={1} sx={{ maxWidth: 860 }}>
        <Typography variant="body2">
          The server of a site signs what it reports, such as a paid order: a JSON Web Token (RFC 7519) under
          HS256. Keep the secret on the server; a replaced one is good no longer.
        </Typography>
        {isShown && secret.data && <Copyable value={secret.data.secret} label="the secret" />}
        <Fault sentence={secret.isError ? sentenceOf(secret.error, 'The secret could not be read.') : null} />
        <Fault sentence={change.isError ? sentenceOf(change.error, 'The secret was not replaced.') : null} />
        <Stack direction="row" spacing={1}>
          <Button
            onClick={() => {
              setShown(!isShown)
            }}
          >
            {isShown ? 'Hide the secret' : 'Show the secret'}
          </Button>
          <Button
            color="error"
            disabled={isBusy || change.isPending}
            onClick={() => {
              setAsking(true)
            }}
          >
            Replace the secret…
          </Button>
        </Stack>
      </Stack>
      <Dialog open={isAsking} onClose={close} aria-labelledby="replace-secret">
        <DialogTitle id="replace-secret">Replace the secret?</DialogTitle>
        <DialogContent>
          Calls that are signed with the present secret are refused from that moment on, until the site’s
          server has the new one.
        </DialogContent>
        <DialogButtons
          close={close}
          label="Replace"
          isDestructive
          isDisabled={change.isPending}
          act={() => {
            change.mutate(
              { body: { value: { ...value, secretNumber: value.secretNumber + 1 }, version } },
              { onSettled: close },
            )
          }}
        />
      </Dialog>
    </Sheet>
  )
}
