import AddIcon from '@mui/icons-material/Add'
import { Button, Skeleton, Stack, TextField, Typography } from '@mui/material'
import {
  NO_TAGS,
  TAGS_MAX,
  VISIT_FIELDS,
  visitTagsApi,
  visitTagSettings,
  type VisitTag,
  type VisitTagSettings,
} from '@flimbo/core/visitTags'
import { useAnswer } from '../api/index.ts'
import { Sheet, Trouble } from '../ui/index.ts'
import { useSession } from '../session/index.ts'
import { ReceivedHits } from './ReceivedHits.tsx'
import { SaveBar } from './SaveBar.tsx'
import { useSetting } from './useSetting.ts'
import { VisitTagSheet } from './VisitTagSheet.tsx'

const PAGE = 'hit?id={id}&page={address}&source={source}&medium={medium}&campaign={campaign}'

function freshTag(tags: readonly VisitTag[], standIns: boolean): VisitTag {
  let n = tags.length + 1
  while (tags.some(({ id }) => id === `t${String(n)}`)) n++
  return {
    id: `t${String(n)}`,
    name: '',
    kind: 'measurement',
    value: '',
    address: standIns ? `https://collector.example/${PAGE}` : '',
    firing: 'page',
    body: '',
    resting: false,
  }
}

/** The snippets that routes may fire on the way: each defined once, with what its collector was sent. */
export function VisitTagsPart() {
  const { standIns } = useSession()
  const setting = useSetting<VisitTagSettings>(visitTagsApi.settings, visitTagsApi.change, visitTagSettings)
  const queue = useAnswer(visitTagsApi.queue, {}, { refetchInterval: 5000 })
  const { value } = setting
  if (setting.answer.isError) return <Trouble error={setting.answer.error} />
  if (!value) return <Skeleton variant="rounded" height={420} />
  const { tags, consent } = value
  const setTags = (next: VisitTag[]) => {
    setting.set({ ...value, tags: next })
  }
  const isAsked = tags.some(({ firing, resting }) => firing === 'asked' && !resting)
  return (
    <>
      <Sheet
        title="Visit tags"
        aside={
          <Button
            startIcon={<AddIcon />}
            disabled={tags.length >= TAGS_MAX}
            onClick={() => {
              setTags([...tags, freshTag(tags, standIns)])
            }}
          >
            Add tag
          </Button>
        }
      >
        <Stack spacing={2}>
          <Typography variant="body2" color="textSecondary">
            Measurement or audience snippets that fire on the way from a code to its page, on the routes that
            use them. Every other route stays a plain redirect. An address may carry{' '}
            {VISIT_FIELDS.map((field) => `{${field}}`).join(' ')}.
          </Typography>
          {tags.length === 0 && (
            <Typography>
              None is defined yet. Add one with the ID your analytics or audience tool gave you, then choose
              it on a route under “On the way”.
            </Typography>
          )}
          {tags.map((tag, i) => (
            <VisitTagSheet
              key={tag.id}
              tag={tag}
              number={i + 1}
              faultOf={(field) => setting.faultOf(`tags.${String(i)}.${field}`)}
              waiting={queue.data?.rows.find(({ tagId }) => tagId === tag.id)}
              change={(part) => {
                setTags(tags.map((each) => (each.id === tag.id ? { ...each, ...part } : each)))
              }}
              remove={() => {
                setTags(tags.filter(({ id }) => id !== tag.id))
              }}
            />
          ))}
          {(isAsked || consent.why !== NO_TAGS.consent.why || consent.notice !== '') && (
            <Stack spacing={1.5} sx={{ maxWidth: 720 }}>
              <Typography variant="h3">What visitors are asked</Typography>
              <TextField
                size="small"
                multiline
                maxRows={4}
                label="In your words"
                value={consent.why}
                error={setting.faultOf('consent.why') !== undefined}
                helperText={
                  setting.faultOf('consent.why') ??
                  'Both answers lead on, and the answer is kept nowhere: whoever scans again is asked again.'
                }
                onChange={({ target }) => {
                  setting.set({
                    ...value,
                    consent: { ...consent, why: target.value.replace(/[\r\n]+/g, ' ') },
                  })
                }}
              />
              <TextField
                size="small"
                label="Your privacy notice (optional)"
                placeholder="https://example.com/privacy"
                value={consent.notice}
                error={setting.faultOf('consent.notice') !== undefined}
                helperText={setting.faultOf('consent.notice')}
                onChange={({ target }) => {
                  setting.set({ ...value, consent: { ...consent, notice: target.value } })
                }}
              />
            </Stack>
          )}
          <SaveBar setting={setting} />
        </Stack>
      </Sheet>
      {standIns && <ReceivedHits />}
    </>
  )
}
