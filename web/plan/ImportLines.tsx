import {
  Box,
  Pagination,
  Tab,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  Tabs,
  Typography,
} from '@mui/material'
import { planApi, type ImportLine, type PlanImport } from '@flimbo/core/plan'
import { useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { number } from '@flimbo/core/formats'
import { Sheet, Trouble } from '../ui/index.ts'

const PAGE_SIZE = 50
type Which = ImportLine['verdict'] | 'warned' | 'all'
const WORDS: Record<ImportLine['verdict'], string> = {
  create: '+ create',
  change: '~ change',
  same: '= the same',
  refuse: '✕ refuse',
}

/** Line by line what the file would do, and why a line is refused. */
export function ImportLines({ file }: { file: PlanImport }) {
  const { counts } = file
  const [which, setWhich] = useState<Which>(counts.refuse > 0 ? 'refuse' : 'all')
  const [page, setPage] = useState(0)
  const lines = useAnswer(planApi.lines, {
    params: { id: file.id },
    query: { page, pageSize: PAGE_SIZE, ...(which === 'all' ? {} : { verdict: which }) },
  })
  const all = counts.create + counts.change + counts.same + counts.refuse
  const tabs: readonly [Which, string, number][] = [
    ['all', 'All lines', all],
    ['refuse', 'Refused', counts.refuse],
    ['create', 'To create', counts.create],
    ['change', 'To change', counts.change],
    ['warned', 'Warnings', counts.warned],
    ['same', 'The same', counts.same],
  ]
  return (
    <Sheet title="Line by line" pad={false}>
      <Tabs
        value={which}
        onChange={(_event, to: Which) => {
          setWhich(to)
          setPage(0)
        }}
        aria-label="Which lines"
      >
        {tabs.map(([value, name, n]) => (
          <Tab
            key={value}
            value={value}
            label={`${name} ${number(n)}`}
            disabled={n === 0 && value !== 'all'}
          />
        ))}
      </Tabs>
      {lines.isError && <Trouble error={lines.error} />}
      <Table size="small" aria-label="Lines of the file">
        <TableHead>
          <TableRow>
            <TableCell sx={{ width: 70 }}>Line</TableCell>
            <TableCell sx={{ width: 110 }}>Action</TableCell>
            <TableCell sx={{ width: '28%' }}>Piece</TableCell>
            <TableCell>Details</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {lines.data?.rows.map((line) => (
            <TableRow key={line.line}>
              <TableCell>{number(line.line)}</TableCell>
              <TableCell sx={line.verdict === 'refuse' ? { color: 'error.main', fontWeight: 650 } : {}}>
                {WORDS[line.verdict]}
              </TableCell>
              <TableCell sx={{ overflowWrap: 'anywhere' }}>{line.name}</TableCell>
              <TableCell>
                {line.why.map((why) => (
                  <Typography key={why} variant="body2" color="error">
                    {why}
                  </Typography>
                ))}
                {line.changes.map(({ column, was, is }) => (
                  <Typography key={column} variant="body2">
                    {column}: {was === '' ? 'nothing' : `“${was}”`} becomes{' '}
                    {is === '' ? 'nothing' : `“${is}”`}
                  </Typography>
                ))}
                {line.findings.map((finding, i) => (
                  <Typography key={i} variant="body2" color="warning">
                    {finding.field}: {finding.sentence}
                  </Typography>
                ))}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {(lines.data?.total ?? 0) > PAGE_SIZE && (
        <Box sx={{ p: 1 }}>
          <Pagination
            count={Math.ceil((lines.data?.total ?? 0) / PAGE_SIZE)}
            page={page + 1}
            onChange={(_event, to) => {
              setPage(to - 1)
            }}
          />
        </Box>
      )}
    </Sheet>
  )
}
