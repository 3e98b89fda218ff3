import { Button, Stack, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { visitTagsApi } from '@flimbo/core/visitTags'
import { useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { quantity } from '@flimbo/core/formats'
import { Sheet } from '../ui/index.ts'
import { useSession } from '../session/index.ts'

const STEP = 20
/** New hits are looked for this often: the collector is another's machine, which tells the office nothing by itself. */
const LOOK_MS = 1000

/** What arrives at the collector stand-in, as it arrives: campaign, source and medium are seen before anything is printed. */
export function ReceivedHits() {
  const {
    workspace: { zone },
  } = useSession()
  const [shown, setShown] = useState(STEP)
  const received = useAnswer(visitTagsApi.received, {}, { refetchInterval: LOOK_MS })
  const rows = received.data?.rows ?? []
  const clock = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
  })
  return (
    <Sheet
      title="What the collector stand-in received"
      aside={
        <Typography variant="body2" color="textSecondary" role="status">
          {rows.length === 0 ? 'nothing yet' : `the latest ${quantity(rows.length, 'hit')}`}
        </Typography>
      }
    >
      {rows.length === 0 ? (
        <Typography color="textSecondary">
          Any address under collector.example is answered here. Scan a code of a route that fires a tag, with
          the phone or from the street, and its hit stands here a second later.
        </Typography>
      ) : (
        <Stack spacing={1}>
          <Table size="small" aria-label="Received hits" sx={{ tableLayout: 'fixed' }}>
            <TableHead>
              <TableRow>
                <TableCell sx={{ width: 84 }}>When</TableCell>
                <TableCell sx={{ width: 96 }}>From</TableCell>
                <TableCell sx={{ width: 310 }}>Asked for</TableCell>
                <TableCell>With</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {rows.slice(0, shown).map(({ number, at, by, method, site, path, values }) => (
                <TableRow key={number} sx={{ verticalAlign: 'top' }}>
                  <TableCell>{clock.format(at)}</TableCell>
                  <TableCell>{by === 'phone' ? 'a phone' : 'the server'}</TableCell>
                  <TableCell sx={{ overflowWrap: 'anywhere' }}>
                    <Typography variant="mono">
                      {method} {site}
                      {path}
                    </Typography>
                  </TableCell>
                  <TableCell sx={{ overflowWrap: 'anywhere' }}>
                    {values.map(([name, value], i) => (
                      <Typography
                        component="span"
                        variant="mono"
                        key={i}
                        sx={{ display: 'inline-block', mr: 1.5 }}
                      >
                        <Typography component="span" variant="body2" color="textSecondary">
                          {name}
                        </Typography>{' '}
                        {value}
                      </Typography>
                    ))}
                  </TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
          {rows.length > shown && (
            <Button
              sx={{ alignSelf: 'flex-start' }}
              onClick={() => {
                setShown(shown + STEP)
              }}
            >
              Show older ones
            </Button>
          )}
        </Stack>
      )}
    </Sheet>
  )
}
