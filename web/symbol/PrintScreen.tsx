import { Autocomplete, Box, Button, Stack, TextField, Typography } from '@mui/material'
import { codesApi } from '@flimbo/core/codes'
import { Link, useSearchParams } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { Empty, PrintWarning, Sheet, Trouble } from '../ui/index.ts'
import { Proof } from './Proof.tsx'

const OFFERED = 500

/** A symbol at its printed size, what is known of it, and its files. */
export function PrintScreen() {
  const campaign = useCampaign()
  const [address, setAddress] = useSearchParams()
  const codes = useAnswer(codesApi.list, {
    query: { campaignId: campaign.id, pageSize: OFFERED, sort: 'name' },
  })
  const rows = codes.data?.rows.filter((row) => row.state !== 'deleted') ?? []
  const code = rows.find((row) => String(row.id) === address.get('code')) ?? rows[0]
  if (codes.isError)
    return (
      <Trouble
        error={codes.error}
        retry={() => {
          void codes.refetch()
        }}
      />
    )
  return (
    <Box sx={{ p: 2, width: '100%', maxWidth: 1440, mx: 'auto' }}>
      <Stack direction="row" sx={{ gap: 2, mb: 2, alignItems: 'center' }}>
        <Typography variant="h1" sx={{ flex: 1 }}>
          Print
        </Typography>
        {code && (
          <Autocomplete
            size="small"
            options={rows}
            value={code}
            disableClearable
            sx={{ width: 360 }}
            getOptionLabel={(row) => row.name}
            getOptionKey={(row) => row.id}
            isOptionEqualToValue={(a, b) => a.id === b.id}
            onChange={(_event, row) => {
              setAddress({ code: String(row.id) }, { replace: true })
            }}
            renderInput={(params) => <TextField {...params} label="Piece" />}
          />
        )}
      </Stack>
      {codes.data && !code && (
        <Sheet>
          <Empty
            title="Nothing to print yet"
            text="Symbols come with the pieces of the plan."
            action={
              <Button variant="contained" component={Link} to="../plan?new">
                New piece
              </Button>
            }
          />
        </Sheet>
      )}
      {code && (
        <Stack spacing={2}>
          <PrintWarning origin={code.origin} />
          <Proof key={code.id} code={code} />
        </Stack>
      )}
    </Box>
  )
}
