import {
  Alert,
  Box,
  FormControlLabel,
  MenuItem,
  Stack,
  Switch,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
  Typography,
} from '@mui/material'
import { DELIMITERS, ENCODINGS, fileColumns, planApi, type PlanImport } from '@flimbo/core/plan'
import { taggingApi } from '@flimbo/core/tagging'
import type { InputOf } from '@flimbo/core/api'
import { useState } from 'react'
import { ApiProblem, useAnswer, useChange } from '../api/index.ts'
import { Sheet } from '../ui/index.ts'

const DELIMITER_NAMES: Readonly<Record<string, string>> = {
  ',': 'comma',
  ';': 'semicolon',
  '\t': 'tab',
  '|': 'upright stroke',
}
const LEAVE_OUT = '-'

/** How the file was understood: its signs, and what each of its columns stands for. All of it can be corrected, and is remembered. */
export function ImportColumns({ file, adjusted }: { file: PlanImport; adjusted: (now: PlanImport) => void }) {
  const [trouble, setTrouble] = useState<string | null>(null)
  const rules = useAnswer(taggingApi.rules, {})
  const adjust = useChange(planApi.adjust)
  const columns = fileColumns(rules.data?.value.parameters)
  const change = async (body: InputOf<typeof planApi.adjust>['body']) => {
    setTrouble(null)
    try {
      adjusted(await adjust.mutateAsync({ params: { id: file.id }, body }))
    } catch (error) {
      setTrouble(error instanceof ApiProblem ? error.problem.detail : 'That could not be changed.')
    }
  }
  const map = (at: number, to: string) =>
    change({
      mapping: file.columns.map((column, i) => {
        if (i === at) return to === LEAVE_OUT ? null : to
        return column.to === to ? null : column.to
      }),
    })
  return (
    <Sheet title="File settings">
      <Stack spacing={2}>
        {trouble !== null && (
          <Alert severity="error" variant="outlined">
            {trouble}
          </Alert>
        )}
        <Stack direction="row" sx={{ gap: 2, flexWrap: 'wrap', alignItems: 'center' }}>
          {file.kind === 'text' && (
            <>
              <TextField
                select
                size="small"
                label="Encoding"
                value={file.encoding}
                onChange={(event) => {
                  void change({ encoding: event.target.value as PlanImport['encoding'] })
                }}
                sx={{ minWidth: 150 }}
              >
                {ENCODINGS.map((each) => (
                  <MenuItem key={each} value={each}>
                    {each}
                  </MenuItem>
                ))}
              </TextField>
              <TextField
                select
                size="small"
                label="Delimiter"
                value={file.delimiter}
                onChange={(event) => {
                  void change({ delimiter: event.target.value as (typeof DELIMITERS)[number] })
                }}
                sx={{ minWidth: 150 }}
              >
                {DELIMITERS.map((each) => (
                  <MenuItem key={each} value={each}>
                    {DELIMITER_NAMES[each]}
                  </MenuItem>
                ))}
              </TextField>
            </>
          )}
          {file.sheets.length > 1 && (
            <TextField
              select
              size="small"
              label="Sheet"
              value={file.sheet}
              onChange={(event) => {
                void change({ sheet: event.target.value })
              }}
              sx={{ minWidth: 150 }}
            >
              {file.sheets.map((each) => (
                <MenuItem key={each} value={each}>
                  {each}
                </MenuItem>
              ))}
            </TextField>
          )}
          <FormControlLabel
            control={
              <Switch
                checked={file.headings}
                onChange={(_event, on) => {
                  void change({ headings: on })
                }}
              />
            }
            label="First line contains headings"
          />
          <FormControlLabel
            control={
              <Switch
                checked={file.empty === 'clear'}
                onChange={(_event, on) => {
                  void change({ empty: on ? 'clear' : 'leave' })
                }}
              />
            }
            label="Empty cells clear values"
          />
          <FormControlLabel
            control={
              <Switch
                checked={file.fix}
                onChange={(_event, on) => {
                  void change({ fix: on })
                }}
              />
            }
            label="Apply suggested fixes"
          />
        </Stack>
        <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label="Columns of the file">
          <Table size="small">
            <TableHead>
              <TableRow>
                {file.columns.map(({ heading, to }, i) => (
                  <TableCell key={i} sx={{ minWidth: 150, verticalAlign: 'top' }}>
                    <Typography variant="body2" noWrap sx={{ fontWeight: 650 }}>
                      {heading || `Column ${String(i + 1)}`}
                    </Typography>
                    <TextField
                      select
                      size="small"
                      fullWidth
                      value={to ?? LEAVE_OUT}
                      onChange={(event) => {
                        void map(i, event.target.value)
                      }}
                      slotProps={{
                        htmlInput: { 'aria-label': `${heading || `Column ${String(i + 1)}`} stands for` },
                      }}
                    >
                      <MenuItem value={LEAVE_OUT}>(left out)</MenuItem>
                      {columns.map(({ id, title }) => (
                        <MenuItem key={id} value={id}>
                          {title}
                        </MenuItem>
                      ))}
                    </TextField>
                  </TableCell>
                ))}
              </TableRow>
            </TableHead>
            <TableBody>
              {[0, 1, 2]
                .filter((i) => file.columns.some(({ sample }) => sample[i] !== undefined))
                .map((i) => (
                  <TableRow key={i}>
                    {file.columns.map(({ sample, to }, j) => (
                      <TableCell
                        key={j}
                        sx={{ maxWidth: 200, color: to === null ? 'text.secondary' : undefined }}
                      >
                        <Typography variant="body2" noWrap>
                          {sample[i] ?? ''}
                        </Typography>
                      </TableCell>
                    ))}
                  </TableRow>
                ))}
            </TableBody>
          </Table>
        </Box>
      </Stack>
    </Sheet>
  )
}
