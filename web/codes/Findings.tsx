import { Alert, Button, Stack, Typography } from '@mui/material'
import { codesApi, contentOf, type Code } from '@flimbo/core/codes'
import { sizeWarning } from '@flimbo/core/symbol'
import { fixSet, type Finding } from '@flimbo/core/tagging'
import { useState } from 'react'
import { ApiProblem, useChange } from '../api/index.ts'
import { Fault } from '../ui/index.ts'

/** What the linter finds of a piece, each with its fix where there is one. */
export function Findings({ code }: { code: Code }) {
  const change = useChange(codesApi.changeMany)
  const [trouble, setTrouble] = useState<string | null>(null)
  const size = sizeWarning(contentOf(code), code.level, code.sizeMm, code.viewingM)
  async function fix({ field, fix: value }: Finding): Promise<void> {
    if (value === null) return
    setTrouble(null)
    try {
      const {
        refused: [refused],
      } = await change.mutateAsync({
        body: { changes: [{ id: code.id, set: fixSet({ [field]: value }, code.extra) }] },
      })
      if (refused) setTrouble(refused.sentence)
    } catch (error) {
      setTrouble(
        error instanceof ApiProblem
          ? error.problem.detail
          : 'The fix could not be sent. Nothing was changed.',
      )
    }
  }
  if (code.findings.length === 0 && size === null) return null
  return (
    <Stack spacing={1} role="group" aria-label="Warnings">
      <Fault sentence={trouble} />
      {code.findings.map((finding) => (
        <Alert
          key={`${finding.kind} ${finding.field}`}
          severity={finding.refused ? 'error' : 'warning'}
          variant="outlined"
          icon={false}
          sx={{ py: 0 }}
          action={
            finding.fix !== null &&
            finding.field !== 'campaign' && (
              <Button
                size="small"
                color="inherit"
                disabled={change.isPending}
                onClick={() => {
                  void fix(finding)
                }}
              >
                Fix
              </Button>
            )
          }
        >
          <Typography variant="body2">
            <strong>{finding.field}</strong>: {finding.sentence}
            {finding.fix !== null && finding.field !== 'destination' && (
              <>
                {' '}
                Fix:{' '}
                <Typography component="span" variant="mono">
                  {finding.fix}
                </Typography>
              </>
            )}
          </Typography>
        </Alert>
      ))}
      {size !== null && (
        <Alert severity="warning" variant="outlined" icon={false} sx={{ py: 0 }}>
          <Typography variant="body2">
            <strong>size</strong>: {size}
          </Typography>
        </Alert>
      )}
    </Stack>
  )
}
