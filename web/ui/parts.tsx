import ContentCopyIcon from '@mui/icons-material/ContentCopyOutlined'
import CheckIcon from '@mui/icons-material/Check'
import { Alert, Box, Button, IconButton, Paper, Stack, Tooltip, Typography } from '@mui/material'
import { useEffect, useState, type ReactNode } from 'react'
import { ApiProblem } from '../api/index.ts'
import { age, moment } from '@flimbo/core/formats'
import { useNow } from './now.ts'

/** A sheet on the ground: hairline, no shadow. */
export function Sheet({
  title,
  aside,
  children,
  pad = true,
}: {
  title?: ReactNode
  aside?: ReactNode
  children: ReactNode
  pad?: boolean
}) {
  return (
    <Paper
      component="section"
      variant="outlined"
      sx={{ display: 'flex', flexDirection: 'column', minWidth: 0, overflow: 'hidden' }}
    >
      {(title ?? aside) && (
        <Stack
          direction="row"
          sx={{
            px: 2,
            py: 1,
            minHeight: 44,
            alignItems: 'center',
            justifyContent: 'space-between',
            gap: 1,
            borderBottom: 1,
            borderColor: 'divider',
          }}
        >
          <Typography variant="h2">{title}</Typography>
          {aside}
        </Stack>
      )}
      <Box sx={{ p: pad ? 2 : 0, minWidth: 0 }}>{children}</Box>
    </Paper>
  )
}

/** What an empty screen says: what to do first, and the means to do it. */
export function Empty({ title, text, action }: { title: string; text: string; action?: ReactNode }) {
  return (
    <Stack sx={{ alignItems: 'center', textAlign: 'center', py: 6, px: 2, gap: 1.5 }}>
      <Typography variant="h2">{title}</Typography>
      <Typography color="textSecondary" sx={{ maxWidth: 460 }}>
        {text}
      </Typography>
      {action}
    </Stack>
  )
}

/** What went wrong, in the server's own sentence, and a way to try again. */
export function Trouble({ error, retry }: { error: unknown; retry?: () => void }) {
  const text = error instanceof ApiProblem ? error.problem.detail : 'Something went wrong in this page.'
  return (
    <Alert
      severity="error"
      variant="outlined"
      sx={{ m: 2 }}
      action={
        retry && (
          <Button color="inherit" size="small" onClick={retry}>
            Try again
          </Button>
        )
      }
    >
      {text}
    </Alert>
  )
}

/** A moment in the campaign's zone with its age beside it. */
export function When({ at, zone, never = 'never' }: { at: number | null; zone: string; never?: string }) {
  const now = useNow()
  if (at === null) return <>{never}</>
  return (
    <Tooltip title={`${moment(at, zone)} (${zone})`}>
      <time dateTime={new Date(at).toISOString()}>{age(at, Math.max(now, at))}</time>
    </Tooltip>
  )
}

/** "last scan 3 min ago", or that there was none. */
export function LastScan({ at, zone }: { at: number | null; zone: string }) {
  return at === null ? (
    <>never scanned</>
  ) : (
    <>
      last scan <When at={at} zone={zone} />
    </>
  )
}

/** A value people copy, in the face that tells 0 from O, with a button that copies it. */
export function Copyable({ value, label, children }: { value: string; label: string; children?: ReactNode }) {
  const [copied, setCopied] = useState(false)
  useEffect(() => {
    if (!copied) return
    const back = setTimeout(() => {
      setCopied(false)
    }, 1500)
    return () => {
      clearTimeout(back)
    }
  }, [copied])
  return (
    <Stack direction="row" sx={{ alignItems: 'flex-start', gap: 0.5, minWidth: 0 }}>
      <Typography
        component="span"
        variant="mono"
        sx={{ overflowWrap: 'anywhere', pt: 0.25, flex: 1, minWidth: 0 }}
      >
        {children ?? value}
      </Typography>
      <Tooltip title={copied ? 'Copied' : `Copy ${label}`}>
        <IconButton
          size="small"
          aria-label={`Copy ${label}`}
          onClick={() => {
            void navigator.clipboard.writeText(value).then(() => {
              setCopied(true)
            })
          }}
        >
          {copied ? <CheckIcon fontSize="inherit" /> : <ContentCopyIcon fontSize="inherit" />}
        </IconButton>
      </Tooltip>
    </Stack>
  )
}

/** A named value in a list of facts. */
export function Fact({ name, children }: { name: string; children: ReactNode }) {
  return (
    <Box sx={{ display: 'contents' }}>
      <Typography component="dt" variant="body2" color="textSecondary">
        {name}
      </Typography>
      <Typography component="dd" variant="body2" sx={{ m: 0, minWidth: 0, overflowWrap: 'anywhere' }}>
        {children}
      </Typography>
    </Box>
  )
}

/** Facts as a list of names and values. */
export function Facts({ children }: { children: ReactNode }) {
  return (
    <Box
      component="dl"
      sx={{
        display: 'grid',
        gridTemplateColumns: 'max-content minmax(0, 1fr)',
        columnGap: 2,
        rowGap: 0.75,
        m: 0,
      }}
    >
      {children}
    </Box>
  )
}
