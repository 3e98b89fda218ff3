import {
  Dialog,
  DialogContent,
  DialogTitle,
  Table,
  TableBody,
  TableCell,
  TableRow,
  Typography,
} from '@mui/material'

const KEYS: readonly [key: string, does: string][] = [
  ['Ctrl K', 'find anything'],
  ['J / K', 'next / previous row'],
  ['E', 'edit the destination'],
  ['N', 'add a piece, route, page or campaign'],
  ['T', 'test scan with the phone'],
  ['/', 'filter'],
  ['Esc', 'close what is open at the right'],
  ['?', 'this list'],
]

const GRID_KEYS: readonly [key: string, does: string][] = [
  ['Arrows, Tab', 'go from cell to cell; with Ctrl to the edge, with Shift choose a block'],
  ['Enter, F2', 'edit the cell, or open the piece where a cell is only shown; Ctrl Enter opens it anywhere'],
  ['Enter, Tab, Esc', 'while editing: save and go on, or cancel'],
  ['Ctrl C / X / V', 'copy, cut and paste blocks, to and from a spreadsheet'],
  ['Ctrl D', 'fill the block down from its first row'],
  ['Delete', 'clear the cells'],
  ['Ctrl Z / Y', 'undo / redo'],
  ['Space, Ctrl A', 'select the piece / all pieces'],
  ['F', 'apply the linter’s fixes to the row'],
  ['C', 'copy the final address of the row'],
  ['Alt Shift ← / →', 'narrower / wider column'],
]

const ROUTE_KEYS: readonly [key: string, does: string][] = [
  ['L', 'add a lane'],
  ['Enter', 'open the lane'],
  ['Alt ↑ / ↓', 'move the lane up or down'],
  ['P', 'publish the draft'],
]

const PRINT_KEYS: readonly [key: string, does: string][] = [
  ['1 to 9', 'apply the fix of that number'],
  ['Ctrl Z / Y', 'undo / redo a change of the draft'],
  [
    'Arrows',
    'on the contact sheet: another piece; on a picture: move the symbol, by ten with Shift, turn it with Alt',
  ],
]

/** Every key and what it does. */
export function KeyList({ open, close }: { open: boolean; close: () => void }) {
  return (
    <Dialog open={open} onClose={close} aria-labelledby="keys-title">
      <DialogTitle id="keys-title">Keyboard shortcuts</DialogTitle>
      <DialogContent>
        <Keys name="Everywhere" keys={KEYS} />
        <Keys name="In the plan" keys={GRID_KEYS} />
        <Keys name="On Routes" keys={ROUTE_KEYS} />
        <Keys name="On Print" keys={PRINT_KEYS} />
      </DialogContent>
    </Dialog>
  )
}

function Keys({ name, keys }: { name: string; keys: typeof KEYS }) {
  return (
    <>
      <Typography variant="h3" sx={{ mt: 1 }}>
        {name}
      </Typography>
      <Table size="small" aria-label={name}>
        <TableBody>
          {keys.map(([key, does]) => (
            <TableRow key={key}>
              <TableCell component="th" scope="row" sx={{ whiteSpace: 'nowrap' }}>
                <kbd>{key}</kbd>
              </TableCell>
              <TableCell>{does}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </>
  )
}
