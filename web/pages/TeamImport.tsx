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
import { fieldFaults } from '@flimbo/core/api'
import { useState } from 'react'
import { sentenceOf, useChange } from '../api/index.ts'
import { ChooseFile, Fault, Sheet, TABLE_FILES, useTableFile } from '../ui/index.ts'

const SHOWN = 8
const BYTES_MAX = 2_000_000
const TOO_LARGE = 'The file is larger than 2 MB, which is no list of a team. Choose another.'

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
  const { table: team, fault: unread, take } = useTableFile(readTeam, BYTES_MAX, TOO_LARGE)
  const [given, setGiven] = useState({ medium: '', source: '', destination: '', language: 'en' })
  const [faults, setFaults] = useState<readonly { path: string; message: string }[]>([])
  const create = useChange(teamApi.create)

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
        <ChooseFile
          of="File of the team"
          accept={TABLE_FILES}
          take={take}
          variant="outlined"
          sx={{ alignSelf: 'flex-start' }}
        >
          {team ? 'Choose another file' : 'Choose file'}
        </ChooseFile>
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
