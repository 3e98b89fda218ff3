import AddIcon from '@mui/icons-material/Add'
import { Alert, Box, Button, Stack } from '@mui/material'
import { Link, useNavigate } from 'react-router'
import { Empty } from '../ui/index.ts'

/** A plan without a piece: what one is, and the two ways to the first. */
export function EmptyPlan({ add }: { add: () => void }) {
  const navigate = useNavigate()
  return (
    <Box sx={{ border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}>
      <Empty
        title="Nothing is planned yet"
        text="A piece is one thing you print or send: a poster, a leaflet, a ticket. Name it, say how its visits are tagged, and where it leads; its short link and symbol are there at once. A plan in a spreadsheet can be imported or pasted."
        action={
          <Stack direction="row" spacing={1}>
            <Button variant="contained" startIcon={<AddIcon />} onClick={add}>
              Add the first piece
            </Button>
            <Button
              variant="outlined"
              onClick={() => {
                void navigate('../import')
              }}
            >
              Import a plan
            </Button>
            <Button component={Link} to="../print?static=new">
              New static code
            </Button>
          </Stack>
        }
      />
    </Box>
  )
}

/** A plan whose pieces are all filtered away. */
export function NoMatch({ showAll }: { showAll: () => void }) {
  return (
    <Alert
      severity="info"
      variant="outlined"
      action={
        <Button color="inherit" onClick={showAll}>
          Show all pieces
        </Button>
      }
    >
      No piece matches the filter.
    </Alert>
  )
}
