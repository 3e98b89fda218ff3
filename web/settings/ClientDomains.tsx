import { MenuItem, Stack, TextField } from '@mui/material'
import type { Domain } from '@flimbo/core/domains'
import { workspaceApi } from '@flimbo/core/workspace'
import { useChange } from '../api/index.ts'
import { Sheet } from '../ui/index.ts'
import { useSession } from '../session/index.ts'

const USUAL = 'usual'

/** Which domain the new short links of each client are on. */
export function ClientDomains({ domains }: { domains: readonly Domain[] }) {
  const { clients } = useSession()
  const change = useChange(workspaceApi.changeClient)
  return (
    <Sheet title="Clients">
      <Stack spacing={2} sx={{ maxWidth: 520 }}>
        {clients.map(({ id, name, domainId }) => (
          <TextField
            key={id}
            select
            size="small"
            label={name}
            value={domainId === null ? USUAL : String(domainId)}
            onChange={(event) => {
              change.mutate({
                params: { id },
                body: { domainId: event.target.value === USUAL ? null : Number(event.target.value) },
              })
            }}
          >
            <MenuItem value={USUAL}>Default: the workspace’s domain</MenuItem>
            {domains
              .filter(({ state }) => state === 'ready')
              .map((domain) => (
                <MenuItem key={domain.id} value={String(domain.id)}>
                  {domain.host}
                </MenuItem>
              ))}
          </TextField>
        ))}
      </Stack>
    </Sheet>
  )
}
