import { Box, Button, Paper, Stack, Typography } from '@mui/material'
import type { ReactNode } from 'react'
import { Fault } from '../ui/index.ts'

/** The sheet one signs in on: nothing else on the page. */
export function Entrance({
  title,
  text,
  trouble,
  submit,
  busy,
  onSubmit,
  children,
}: {
  title: string
  text: string
  trouble: string | null
  submit: string
  busy: boolean
  onSubmit: () => void
  children: ReactNode
}) {
  return (
    <Box component="main" sx={{ minHeight: '100vh', display: 'grid', placeItems: 'center', p: 2 }}>
      <Paper
        variant="outlined"
        sx={{ width: '100%', maxWidth: 420, p: 4, borderLeft: 4, borderLeftColor: 'primary.main' }}
      >
        <Stack
          component="form"
          noValidate
          spacing={2}
          onSubmit={(event) => {
            event.preventDefault()
            onSubmit()
          }}
        >
          <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
            <img src="/mark.svg" width={28} height={28} alt="" />
            <Typography sx={{ fontWeight: 750, fontSize: '1.125rem' }}>Flimbo</Typography>
          </Stack>
          <Typography variant="h1">{title}</Typography>
          <Typography color="textSecondary">{text}</Typography>
          <Fault sentence={trouble} />
          {children}
          <Button type="submit" variant="contained" size="medium" disabled={busy}>
            {submit}
          </Button>
        </Stack>
      </Paper>
    </Box>
  )
}
