import {
  Alert,
  Button,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material'
import type { Disagreement } from './disagreements.ts'

/** Two people changed the same thing: both versions side by side, and the choice. */
export function Conflict({
  what,
  rows,
  keepStored,
  overwrite,
}: {
  what: string
  /** Where both differ, if that can be said field by field. */
  rows?: readonly Disagreement[]
  keepStored: () => void
  overwrite: () => void
}) {
  return (
    <Alert severity="warning" variant="outlined" role="alert">
      <Typography sx={{ fontWeight: 650 }}>
        Someone saved this {what} after you opened it. Nothing was overwritten.
      </Typography>
      {rows && rows.length > 0 && (
        <Table size="small" aria-label="What differs">
          <TableHead>
            <TableRow>
              <TableCell />
              <TableCell>Yours</TableCell>
              <TableCell>Stored now</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {rows.map(({ name, mine, theirs }) => (
              <TableRow key={name}>
                <TableCell component="th" scope="row">
                  {name}
                </TableCell>
                <TableCell sx={{ overflowWrap: 'anywhere' }}>{mine || '–'}</TableCell>
                <TableCell sx={{ overflowWrap: 'anywhere' }}>{theirs || '–'}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      {rows?.length === 0 && (
        <Typography variant="body2">What you see is already the same as what is stored.</Typography>
      )}
      <Stack direction="row" spacing={1} sx={{ mt: 1 }}>
        <Button variant="outlined" onClick={keepStored}>
          Keep the stored version
        </Button>
        <Button variant="contained" color="warning" onClick={overwrite}>
          Overwrite with mine
        </Button>
      </Stack>
    </Alert>
  )
}
