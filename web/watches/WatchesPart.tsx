import {
  Button,
  Link,
  Skeleton,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material'
import { OF_NAMES, resultsPath, watchesApi, watchInWords } from '@flimbo/core/watches'
import { Link as RouterLink } from 'react-router'
import { useAnswer, useChange } from '../api/index.ts'
import { useSession } from '../session/index.ts'
import { Sheet, Trouble, When } from '../ui/index.ts'

/** Everything that whoever is signed in is told of. */
export function WatchesPart() {
  const { zone } = useSession().workspace
  const watches = useAnswer(watchesApi.list, { query: {} })
  const remove = useChange(watchesApi.remove)
  if (watches.isError) return <Trouble error={watches.error} />
  if (!watches.data) return <Skeleton variant="rounded" height={160} />
  const { rows } = watches.data
  return (
    <Sheet title="What you are told" pad={rows.length === 0}>
      {rows.length === 0 ? (
        <Typography color="textSecondary">
          Nothing yet. Results and Leads have “Watch”: a summary now and then, each new lead, or scans that
          begin, reach a number, stop or are many more than usual.
        </Typography>
      ) : (
        <Table size="small" aria-label="What you are told">
          <TableHead>
            <TableRow>
              <TableCell>Of</TableCell>
              <TableCell>You are told of</TableCell>
              <TableCell>Last told</TableCell>
              <TableCell aria-label="Actions" />
            </TableRow>
          </TableHead>
          <TableBody>
            {rows.map((watch) => (
              <TableRow key={watch.id}>
                <TableCell>
                  <Link component={RouterLink} underline="always" to={resultsPath(watch)}>
                    {watch.name}
                  </Link>{' '}
                  ({OF_NAMES[watch.of]})
                </TableCell>
                <TableCell>{watchInWords(watch.what, watch.every, watch.n)}</TableCell>
                <TableCell>{watch.what === 'leads' ? '' : <When at={watch.toldAt} zone={zone} />}</TableCell>
                <TableCell align="right">
                  <Button
                    size="small"
                    disabled={remove.isPending}
                    onClick={() => {
                      remove.mutate({ params: { id: watch.id } })
                    }}
                  >
                    Remove
                  </Button>
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
    </Sheet>
  )
}
