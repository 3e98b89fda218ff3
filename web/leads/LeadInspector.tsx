import {
  Alert,
  Autocomplete,
  Box,
  Button,
  Link,
  MenuItem,
  Skeleton,
  Stack,
  TextField,
  Typography,
} from '@mui/material'
import { leadsApi, type Lead } from '@flimbo/core/leads'
import { workspaceApi } from '@flimbo/core/workspace'
import { Link as RouterLink } from 'react-router'
import { hrefOf, useAnswer } from '../api/index.ts'
import { Inspector, Trouble } from '../ui/index.ts'
import { EraseLead } from './EraseLead.tsx'
import { LeadNotes } from './LeadNotes.tsx'
import { LeadWay } from './LeadWay.tsx'
import { SamePerson } from './SamePerson.tsx'
import type { LeadChanges } from './useLeadChange.ts'
import { useLeadStates } from './useLeadStates.ts'

interface Props {
  readonly id: number
  readonly zone: string
  readonly changes: LeadChanges
  readonly choose: (id: number) => void
  readonly close: () => void
}

const HELD: Readonly<Record<NonNullable<Lead['held']>, string>> = {
  trap: 'It filled in a field that people do not see.',
  quick: 'It came quicker than anybody reads the form.',
  many: 'Very many came from one visitor.',
  program: 'It came from a program that says so.',
}

/** A person who answered: what they said, how they came, and what became of it. */
export function LeadInspector({ id, zone, changes, choose, close }: Props) {
  const lead = useAnswer(leadsApi.get, { params: { id } })
  const { data } = lead
  return (
    <Inspector title={data ? data.title || `Lead ${String(id)}` : 'Lead'} close={close}>
      {lead.isError && <Trouble error={lead.error} />}
      {!data && !lead.isError && <Skeleton variant="rounded" height={320} />}
      {data && (
        <Stack sx={{ gap: 2.5 }}>
          {data.held !== null && (
            <Alert
              severity="warning"
              variant="outlined"
              action={
                <Button
                  size="small"
                  color="inherit"
                  onClick={() => {
                    changes.apply([id], { isHeld: false }, '1 lead taken.')
                  }}
                >
                  Take it
                </Button>
              }
            >
              Held. {HELD[data.held]}
            </Alert>
          )}
          <Standing lead={data} changes={changes} />
          <Answers lead={data} />
          <LeadWay lead={data} zone={zone} />
          {data.consents.map(({ title, words, language }, i) => (
            <Box key={i}>
              <Typography variant="h3">Agreed{title === '' ? '' : `: ${title}`}</Typography>
              <Typography variant="body2" lang={language} sx={{ whiteSpace: 'pre-line' }}>
                {words}
              </Typography>
            </Box>
          ))}
          <SamePerson lead={data} zone={zone} changes={changes} choose={choose} />
          <LeadNotes lead={data} zone={zone} />
          <Stack direction="row" sx={{ gap: 1, borderTop: 1, borderColor: 'divider', pt: 1.5 }}>
            <Button size="small" href={hrefOf(leadsApi.person, { params: { id } })}>
              Download all of this person
            </Button>
            <EraseLead lead={data} erased={close} />
          </Stack>
        </Stack>
      )}
    </Inspector>
  )
}

function Answers({ lead: { id, answers } }: { lead: Lead }) {
  return (
    <Box component="dl" sx={{ m: 0, display: 'grid', gap: 1 }}>
      {answers.length === 0 && <Typography variant="body2">Nothing was filled in.</Typography>}
      {answers.map(({ question, title, text, file }) => (
        <Box key={question}>
          <Typography component="dt" variant="caption" color="textSecondary">
            {title}
          </Typography>
          <Typography
            component="dd"
            variant="body2"
            sx={{ m: 0, whiteSpace: 'pre-line', overflowWrap: 'anywhere' }}
          >
            {file ? (
              <Link href={hrefOf(leadsApi.file, { params: { id, key: file.key } })}>{text}</Link>
            ) : (
              text
            )}
          </Typography>
        </Box>
      ))}
    </Box>
  )
}

function Standing({ lead, changes }: { lead: Lead; changes: LeadChanges }) {
  const people = useAnswer(workspaceApi.people, {}).data?.rows ?? []
  const { states, nameOf } = useLeadStates()
  const { id, state, assignedTo, tags } = lead
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Stack direction="row" sx={{ gap: 1 }}>
        <TextField
          select
          size="small"
          label="State"
          value={state}
          sx={{ flex: 1 }}
          onChange={({ target }) => {
            changes.apply(
              [id],
              { state: target.value },
              `1 lead set to ${nameOf(target.value).toLowerCase()}.`,
            )
          }}
        >
          {states.map(({ key, name }) => (
            <MenuItem key={key} value={key}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          size="small"
          label="Assigned to"
          value={people.some((person) => person.id === assignedTo) ? String(assignedTo) : ''}
          sx={{ flex: 1 }}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          onChange={({ target }) => {
            const next = target.value === '' ? null : Number(target.value)
            changes.apply(
              [id],
              { assignedTo: next },
              next === null ? '1 lead assigned to nobody.' : '1 lead assigned.',
            )
          }}
        >
          <MenuItem value="">Nobody</MenuItem>
          {people.map((person) => (
            <MenuItem key={person.id} value={String(person.id)}>
              {person.name}
            </MenuItem>
          ))}
        </TextField>
      </Stack>
      <Autocomplete
        multiple
        freeSolo
        size="small"
        options={[]}
        value={tags}
        onChange={(_event, next) => {
          const written = [...new Set(next.map((tag) => tag.trim()).filter((tag) => tag !== ''))]
          changes.apply([id], { tags: written }, 'The tags of 1 lead were changed.')
        }}
        renderInput={(params) => <TextField {...params} label="Tags" />}
      />
      <Typography variant="caption" color="textSecondary">
        {lead.email !== '' && (
          <>
            <Link href={`mailto:${lead.email}`}>{lead.email}</Link>{' '}
          </>
        )}
        {lead.phone !== '' && <Link href={`tel:${lead.phone}`}>{lead.phone}</Link>}
      </Typography>
      <AnsweredOn lead={lead} />
    </Stack>
  )
}

function AnsweredOn({ lead: { campaignId, pageId, pageName } }: { lead: Lead }) {
  return pageName === '' ? null : (
    <Typography variant="caption" color="textSecondary">
      Answered{' '}
      <Link component={RouterLink} to={`/campaigns/${String(campaignId)}/pages?page=${String(pageId)}`}>
        {pageName}
      </Link>
    </Typography>
  )
}
