import { Box, Stack, Typography } from '@mui/material'
import { checksApi } from '@flimbo/core/checks'
import type { Code } from '@flimbo/core/codes'
import { useChange } from '../api/index.ts'
import { CheckNow, CheckResult } from '../checks/index.ts'

/** What the newest check of a piece's destination came to, and the means to check now. */
export function CheckOf({ code, zone }: { code: Pick<Code, 'id' | 'check'>; zone: string }) {
  const check = useChange(checksApi.code)
  return (
    <Box>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
        <Typography variant="h3" sx={{ flex: 1 }}>
          Destination check
        </Typography>
        <CheckNow
          isPending={check.isPending}
          check={() => {
            check.mutate({ params: { id: code.id } })
          }}
        />
      </Stack>
      <CheckResult newest={code.check} hops={check.data?.hops} error={check.error} zone={zone} />
    </Box>
  )
}
