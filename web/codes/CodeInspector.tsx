import { Alert, Box, Button, Divider, Skeleton, Stack, Typography } from '@mui/material'
import { codesApi, contentOf, type Code } from '@flimbo/core/codes'
import { printApi } from '@flimbo/core/print'
import { Link } from 'react-router'
import { hrefOf, useAnswer } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { History } from '../routing/index.ts'
import { SymbolPicture, useStyles } from '../symbol/index.ts'
import { number } from '@flimbo/core/formats'
import { Copyable, Inspector, PrintWarning, Trouble, LastScan } from '../ui/index.ts'
import { CheckOf } from './CheckOf.tsx'
import { DensityTable } from './DensityTable.tsx'
import { Fate } from './Fate.tsx'
import { FinalAddress } from './FinalAddress.tsx'
import { Findings } from './Findings.tsx'
import { LatestScans } from './LatestScans.tsx'
import { PieceForm } from './PieceForm.tsx'

/** One piece at the right edge: its symbol and links, its figures, and everything that can be changed. */
export function CodeInspector({
  id,
  close,
  focusDestination,
}: {
  id: number
  close: () => void
  focusDestination: number
}) {
  const { data, isError, error, refetch } = useAnswer(codesApi.get, { params: { id } })
  const code = data?.id === id ? data : undefined
  const { zone } = useCampaign()
  return (
    <Inspector title={code?.name ?? 'Piece'} close={close}>
      {isError && (
        <Trouble
          error={error}
          retry={() => {
            void refetch()
          }}
        />
      )}
      {!code && !isError && <Skeleton variant="rounded" height={300} />}
      {code && (
        <Stack spacing={2}>
          <Links code={code} />
          <Findings code={code} />
          <Figures code={code} />
          <CheckOf key={`check ${String(id)}`} code={code} zone={zone} />
          <Box>
            <Typography variant="h3">Symbol density</Typography>
            <DensityTable code={code} />
          </Box>
          <Divider />
          <PieceForm key={id} code={code} focusDestination={focusDestination} />
          <Divider />
          <Fate code={code} close={close} />
          <Divider />
          <Box>
            <Typography variant="h3" sx={{ mb: 0.5 }}>
              Change history
            </Typography>
            <History of="code" id={id} zone={zone} />
          </Box>
        </Stack>
      )}
    </Inspector>
  )
}

function Links({ code }: { code: Code }) {
  const { lookOf } = useStyles()
  const params = { id: code.id }
  return (
    <>
      {code.routeState !== 'live' && (
        <Alert severity="warning" variant="outlined">
          Its route “{code.routeName}” is {code.routeState}: scans see a page that says so.
        </Alert>
      )}
      <PrintWarning origin={code.origin} />
      <Stack direction="row" spacing={2}>
        <SymbolPicture
          text={contentOf(code)}
          level={code.level}
          look={lookOf(code.styleId)}
          size={124}
          label={`Symbol of ${code.name}`}
        />
        <Box sx={{ minWidth: 0, flex: 1 }}>
          <Typography variant="body2" color="textSecondary">
            Short link
          </Typography>
          <Copyable value={code.shortLink} label="the short link" />
          {code.oldLinks.length > 0 && (
            <Typography variant="body2" color="textSecondary">
              Still works: {code.oldLinks.join(', ')}
            </Typography>
          )}
          <Typography variant="body2" color={code.channel === '' ? 'warning' : 'textSecondary'}>
            {code.channel === ''
              ? 'Its visits match no channel: analytics will show them as unassigned.'
              : `Channel: ${code.channel}`}
          </Typography>
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1, mt: 1 }}>
            <Button variant="outlined" href={hrefOf(printApi.file, { params, query: { format: 'svg' } })}>
              SVG
            </Button>
            <Button variant="outlined" href={hrefOf(printApi.file, { params, query: { format: 'png' } })}>
              PNG
            </Button>
            <Button variant="outlined" component={Link} to={`../print?code=${String(code.id)}`}>
              Proof
            </Button>
            <Button variant="outlined" component={Link} to={`/phone?code=${String(code.id)}`}>
              Test scan
            </Button>
          </Box>
        </Box>
      </Stack>
      <Box>
        <Typography variant="body2" color="textSecondary">
          A scan ends at
        </Typography>
        <FinalAddress code={code} />
      </Box>
    </>
  )
}

function Figures({ code }: { code: Code }) {
  const { zone } = useCampaign()
  return (
    <Box>
      <Stack direction="row" sx={{ alignItems: 'baseline', gap: 2, mb: 1 }}>
        <Typography>
          <strong data-testid="scan-count">{number(code.scans.scans)}</strong>{' '}
          {code.scans.scans === 1 ? 'scan' : 'scans'}
        </Typography>
        <Typography>
          <strong>{number(code.scans.uniques)}</strong> unique
        </Typography>
        <Typography variant="body2" color="textSecondary" sx={{ flex: 1 }}>
          <LastScan at={code.scans.lastAt} zone={zone} />
        </Typography>
        <Button component={Link} to={`../results?code=${String(code.id)}`}>
          Results
        </Button>
      </Stack>
      <LatestScans codeId={code.id} zone={zone} />
    </Box>
  )
}
