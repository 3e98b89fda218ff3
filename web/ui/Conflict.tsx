import { Alert, Button, Stack, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'

export interface Disagreement {
  readonly name: string
  readonly mine: string
  readonly theirs: string
}

/** Two people changed the same thing: both versions side by side, and the choice. */
export function Conflict({ what, rows, keepTheirs, takeMine }: { what: string; rows: readonly Disagreement[]; keepTheirs: () => void; takeMine: () => void }) {
  return (
    <Alert severity="warning" variant="outlined" role="alert">
      <Typography sx={{ fontWeight: 650 }}>Someone saved this {what} after you opened it. Nothing was overwritten.</Typography>
      {rows.length > 0 ? (
        <Table size="small" aria-label="What differs">
          <TableHead><TableRow><TableCell /><TableCell>Yours</TableCell><TableCell>Stored now</TableCell></TableRow></TableHead>
          <TableBody>
            {rows.map(({ name, mine, theirs }) => (
              <TableRow key={name}>
                <TableCell component="th" scope="row">{name}</TableCell>
                <TableCell sx={{ overflowWrap: 'anywhere' }}>{mine || '–'}</TableCell>
                <TableCell sx={{ overflowWrap: 'anywhere' }}>{theirs || '–'}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      ) : <Typography variant="body2">What you see is already the same as what is stored.</Typography>}
      <Stack direction="row" spacing={1} sx={{ mt: 1 }}>
        <Button variant="outlined" onClick={keepTheirs}>Keep what is stored</Button>
        <Button variant="contained" color="warning" onClick={takeMine}>Put mine in its place</Button>
      </Stack>
    </Alert>
  )
}

/** Where two sets of values differ, by the names people know the fields under. */
export function disagreements<T extends object>(mine: T, theirs: T, names: Readonly<Partial<Record<keyof T & string, string>>>): Disagreement[] {
  return Object.entries(names).flatMap(([field, name]) => {
    const [m, t] = [String(mine[field as keyof T]), String(theirs[field as keyof T])]
    return m === t || name === undefined ? [] : [{ name: name as string, mine: m, theirs: t }]
  })
}
