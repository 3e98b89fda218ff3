import { Button, Stack, Typography } from '@mui/material'
import { codesApi, type Code, type CodeSet } from '@flimbo/core/codes'
import { useState } from 'react'
import { ApiProblem, useChange } from '../api/index.ts'
import { Fault } from '../ui/index.ts'

/** What may become of a piece: put away, brought back, doubled, or deleted while nobody has scanned it. */
export function Fate({ code, close }: { code: Code; close: () => void }) {
  const change = useChange(codesApi.change)
  const copy = useChange(codesApi.copy)
  const [trouble, setTrouble] = useState<string | null>(null)
  const attempt = async (work: () => Promise<unknown>) => {
    setTrouble(null)
    try {
      await work()
    } catch (error) {
      setTrouble(
        error instanceof ApiProblem ? error.problem.detail : 'That could not be done. Nothing was changed.',
      )
    }
  }
  const set = (body: CodeSet) =>
    attempt(() => change.mutateAsync({ params: { id: code.id }, body: { version: code.version, ...body } }))
  const gone = code.state === 'deleted' || code.archivedAt !== null
  return (
    <Stack spacing={1}>
      <Fault sentence={trouble} />
      {code.print.release && !gone && (
        <Typography variant="body2" color="warning">
          This piece is released for print: people may scan it, whatever becomes of it here.
        </Typography>
      )}
      {code.archivedAt !== null && (
        <Typography variant="body2">
          This piece is archived: it is out of the plan, and its code goes on working.
        </Typography>
      )}
      {code.state === 'deleted' && (
        <Typography variant="body2">
          This piece was deleted before anybody scanned it. Its short link says so to whoever tries it.
        </Typography>
      )}
      <Stack direction="row" spacing={1}>
        <Button
          variant="outlined"
          onClick={() => {
            void attempt(() => copy.mutateAsync({ body: { ids: [code.id] } }))
          }}
        >
          Duplicate
        </Button>
        {gone ? (
          <Button
            variant="outlined"
            onClick={() => {
              void set(code.state === 'deleted' ? { state: 'live', archived: false } : { archived: false })
            }}
          >
            Restore
          </Button>
        ) : (
          <Button
            variant="outlined"
            onClick={() => {
              void set({ archived: true }).then(close)
            }}
          >
            Archive
          </Button>
        )}
        {code.state !== 'deleted' && (
          <Button
            variant="outlined"
            color="error"
            disabled={code.scans.scans > 0}
            onClick={() => {
              void set({ state: 'deleted' })
            }}
          >
            Delete
          </Button>
        )}
      </Stack>
      {code.scans.scans > 0 && !gone && (
        <Typography variant="body2" color="textSecondary">
          It has been scanned, so it is printed somewhere and cannot be deleted; archiving takes it out of the
          plan and leaves its code working.
        </Typography>
      )}
    </Stack>
  )
}
