import {
  Alert,
  Button,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
  Typography,
} from '@mui/material'
import { quantity } from '@flimbo/core/formats'
import { memberName, newTeam, readTeam, teamApi, type Team } from '@flimbo/core/pages'
import { decodeBytes, detectEncoding, UnreadableTable } from '@flimbo/core/plan'
import { fieldFaults } from '@flimbo/core/api'
import { useRef, useState } from 'react'
import { sentenceOf, useChange } from '../api/index.ts'
import { Fault, Sheet } from '../ui/index.ts'

const SHOWN = 8
const BYTES_MAX = 2_000_000

/** A contact card and a code for each person of a team, from a file of theirs. */
export function TeamImport({
  campaignId,
  done,
  cancel,
}: {
  campaignId: number
  done: () => void
  cancel: () => void
}) {
  const [team, setTeam] = useState<Team | null>(null)
  const [unread, setUnread] = useState<string | null>(null)
  const [given, setGiven] = useState({ medium: '', source: '', destination: '', language: 'en' })
  const [faults, setFaults] = useState<readonly { path: string; message: string }[]>([])
  const create = useChange(teamApi.create)
  const field = useRef<HTMLInputElement>(null)

  async function read(file: File | undefined): Promise<void> {
    if (!file) return
    setTeam(null)
    if (file.size > BYTES_MAX) {
      setUnread('The file is larger than 2 MB, which is no list of a team. Choose another.')
      return
    }
    const bytes = new Uint8Array(await file.arrayBuffer())
    try {
      setTeam(readTeam(decodeBytes(bytes, detectEncoding(bytes))))
      setUnread(null)
    } catch (error) {
      setUnread(error instanceof UnreadableTable ? error.message : 'The file could not be read as a table.')
    }
  }
  const text = (name: 'medium' | 'source' | 'destination', label: string, help: string) => {
    const fault = faults.find(({ path }) => path === name)?.message
    return (
      <TextField
        size="small"
        label={label}
        value={given[name]}
        error={fault !== undefined}
        helperText={fault ?? help}
        onChange={({ target }) => {
          setGiven({ ...given, [name]: target.value })
        }}
      />
    )
  }
  const save = () => {
    const checked = newTeam.safeParse({ campaignId, ...given, members: team?.members ?? [] })
    setFaults(checked.success ? [] : fieldFaults(checked.error))
    if (checked.success) create.mutate({ body: checked.data }, { onSuccess: done })
  }
  return (
    <Sheet title="A team’s cards">
      <Stack
        component="form"
        noValidate
        sx={{ gap: 2, maxWidth: 720 }}
        onSubmit={(event) => {
          event.preventDefault()
          save()
        }}
      >
        <Typography variant="body2">
          Choose a CSV file whose first line names its columns: given name, family name, role, organisation,
          telephone, mobile, e-mail, website, street, postcode, town, country, note. Each line becomes a
          contact card with a code of its own.
        </Typography>
        <Button
          variant="outlined"
          sx={{ alignSelf: 'flex-start' }}
          onClick={() => {
            field.current?.click()
          }}
        >
          {team ? 'Choose another file' : 'Choose file'}
        </Button>
        <input
          ref={field}
          type="file"
          hidden
          accept=".csv,.txt,.tsv,text/csv"
          aria-label="File of the team"
          onChange={({ target }) => {
            void read(target.files?.[0])
            target.value = ''
          }}
        />
        <Fault sentence={unread} />
        {team && <TeamTable team={team} />}
        {text('medium', 'Medium', 'How the codes are handed on, such as business-card.')}
        {text('source', 'Source', 'Where they are met, such as crew-cards.')}
        {text('destination', 'Website', 'Where a code leads should its card not be shown.')}
        <Fault
          sentence={
            create.error ? sentenceOf(create.error, 'The cards could not be made. Nothing was kept.') : null
          }
        />
        <Stack direction="row" sx={{ gap: 1 }}>
          <Button
            type="submit"
            variant="contained"
            disabled={!team || team.faults.length > 0 || team.members.length === 0 || create.isPending}
          >
            {create.isPending ? 'Making…' : `Make ${quantity(team?.members.length ?? 0, 'card')} and codes`}
          </Button>
          <Button color="inherit" onClick={cancel}>
            Cancel
          </Button>
        </Stack>
      </Stack>
    </Sheet>
  )
}

function TeamTable({ team: { members, unknown, faults } }: { team: Team }) {
  return (
    <>
      {unknown.length > 0 && (
        <Alert severity="info" variant="outlined">
          Left out, for no field has such a name: {unknown.join(', ')}.
        </Alert>
      )}
      {faults.length > 0 && (
        <Alert severity="error" variant="outlined">
          {faults.slice(0, SHOWN).map(({ line, sentence }, i) => (
            <div key={i}>
              Line {line}: {sentence}
            </div>
          ))}
          {faults.length > SHOWN && `And ${String(faults.length - SHOWN)} more.`}
        </Alert>
      )}
      {members.length > 0 && (
        <Table size="small" aria-label="People in the file">
          <TableHead>
            <TableRow>
              <TableCell>Name</TableCell>
              <TableCell>Role</TableCell>
              <TableCell>Telephone</TableCell>
              <TableCell>E-mail</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {members.slice(0, SHOWN).map((member, i) => (
              <TableRow key={i}>
                <TableCell>{memberName(member)}</TableCell>
                <TableCell>{member.role}</TableCell>
                <TableCell>{member.phone || member.mobile}</TableCell>
                <TableCell>{member.email}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      {members.length > SHOWN && (
        <Typography variant="body2">
          And {quantity(members.length - SHOWN, 'person', 'people')} more.
        </Typography>
      )}
    </>
  )
}
