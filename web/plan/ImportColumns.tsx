import { FormControlLabel, MenuItem, Stack, Switch, TextField } from '@mui/material'
import { DELIMITERS, ENCODINGS, fileColumns, planApi, type PlanImport } from '@flimbo/core/plan'
import { taggingApi } from '@flimbo/core/tagging'
import type { InputOf } from '@flimbo/core/api'
import { useState } from 'react'
import { sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { Sheet, Fault } from '../ui/index.ts'
import { ColumnTable, changeMapping } from './ColumnTable.tsx'

const DELIMITER_NAMES: Readonly<Record<string, string>> = {
  ',': 'comma',
  ';': 'semicolon',
  '\t': 'tab',
  '|': 'pipe',
}
/** How the file was understood: its encoding, and what each of its columns stands for. All of it can be corrected, and is remembered. */
export function ImportColumns({ file, adjusted }: { file: PlanImport; adjusted: (now: PlanImport) => void }) {
  const [trouble, setTrouble] = useState<string | null>(null)
  const rules = useAnswer(taggingApi.rules, {})
  const adjust = useChange(planApi.adjust)
  const change = async (body: InputOf<typeof planApi.adjust>['body']) => {
    setTrouble(null)
    try {
      adjusted(await adjust.mutateAsync({ params: { id: file.id }, body }))
    } catch (error) {
      setTrouble(sentenceOf(error, 'That could not be changed.'))
    }
  }
  return (
    <Sheet title="File settings">
      <Stack spacing={2}>
        <Fault sentence={trouble} />
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
          <Option
            label="First line contains headings"
            checked={file.headings}
            change={(on) => {
              void change({ headings: on })
            }}
          />
          <Option
            label="Empty cells clear values"
            checked={file.empty === 'clear'}
            change={(on) => {
              void change({ empty: on ? 'clear' : 'leave' })
            }}
          />
          <Option
            label="Apply suggested fixes"
            checked={file.fix}
            change={(on) => {
              void change({ fix: on })
            }}
          />
        </Stack>
        <ColumnTable
          file={file}
          columns={fileColumns(rules.data?.value.parameters)}
          map={(at, to) => {
            void change({ mapping: changeMapping(file.columns, at, to) })
          }}
        />
      </Stack>
    </Sheet>
  )
}

function Option({
  label,
  checked,
  change,
}: {
  label: string
  checked: boolean
  change: (on: boolean) => void
}) {
  return (
    <FormControlLabel
      label={label}
      control={
        <Switch
          checked={checked}
          onChange={(_event, on) => {
            change(on)
          }}
        />
      }
    />
  )
}
