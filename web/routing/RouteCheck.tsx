import { Typography } from '@mui/material'
import { checksApi } from '@flimbo/core/checks'
import { useAnswer, useChange } from '../api/index.ts'
import { CheckNow, CheckResult } from '../checks/index.ts'
import { Sheet, When } from '../ui/index.ts'

const OLDER_SHOWN = 5

/** Whether people arrive where a route leads: the newest check hop by hop, and the ones before it. */
export function RouteCheck({ id, zone }: { id: number; zone: string }) {
  const checks = useAnswer(checksApi.latest, { params: { id } })
  const check = useChange(checksApi.route)
  const [newest = null, ...older] = checks.data?.rows ?? []
  return (
    <Sheet
      title="Destination check"
      aside={
        <CheckNow
          isPending={check.isPending}
          check={() => {
            check.mutate({ params: { id } })
          }}
        />
      }
    >
      {checks.data && <CheckResult newest={newest} hops={newest?.hops} error={check.error} zone={zone} />}
      {older.slice(0, OLDER_SHOWN).map(({ id: each, at, sentence }) => (
        <Typography key={each} variant="body2" color="textSecondary">
          <When at={at} zone={zone} />: {sentence}
        </Typography>
      ))}
    </Sheet>
  )
}
