import { Dialog, DialogContent, DialogTitle, Table, TableBody, TableCell, TableRow } from '@mui/material'

const KEYS: readonly [key: string, does: string][] = [
  ['Ctrl K', 'find anything'],
  ['J / K', 'next / previous row'],
  ['Enter', 'open the row'],
  ['E', 'edit the destination'],
  ['N', 'add a piece, or begin a campaign'],
  ['T', 'test scan with the phone'],
  ['/', 'filter'],
  ['Esc', 'close what is open at the right'],
  ['?', 'this list'],
]

export function KeyList({ open, close }: { open: boolean; close: () => void }) {
  return (
    <Dialog open={open} onClose={close} aria-labelledby="keys-title">
      <DialogTitle id="keys-title">Keys</DialogTitle>
      <DialogContent>
        <Table size="small">
          <TableBody>
            {KEYS.map(([key, does]) => <TableRow key={key}><TableCell component="th" scope="row"><kbd>{key}</kbd></TableCell><TableCell>{does}</TableCell></TableRow>)}
          </TableBody>
        </Table>
      </DialogContent>
    </Dialog>
  )
}
