import { Box, Button, Typography } from '@mui/material'
import { pagesApi, type Page } from '@flimbo/core/pages'
import { sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { Fault, When } from '../ui/index.ts'

/** What a page showed, the newest first; it goes back to any of it in one step. */
export function PageHistory({ page, zone }: { page: Page; zone: string }) {
  const revisions = useAnswer(pagesApi.revisions, { params: { id: page.id } })
  const back = useChange(pagesApi.goBack)
  const rows = revisions.data?.rows ?? []
  return (
    <Box>
      <Typography variant="h2" sx={{ mb: 1 }}>
        History
      </Typography>
      {back.error && (
        <Fault sentence={sentenceOf(back.error, 'It could not go back. Nothing has changed.')} />
      )}
      {revisions.data && rows.length === 0 && (
        <Typography variant="body2">This page was not published yet.</Typography>
      )}
      <Box component="ol" sx={{ listStyle: 'none', p: 0, m: 0 }} aria-label="Changes of the page">
        {rows.map(({ number, at, by, changes }, i) => (
          <Box component="li" key={number} sx={{ py: 0.75, borderBottom: 1, borderColor: 'divider' }}>
            <Typography variant="body2" color="textSecondary">
              {number} · <When at={at} zone={zone} />
            </Typography>
            <Typography variant="body2" sx={{ overflowWrap: 'anywhere' }}>
              <strong>{by}</strong> {changes.length > 0 ? changes.join('; ') : 'published it unchanged'}
            </Typography>
            {i > 0 && (
              <Button
                size="small"
                disabled={back.isPending || page.draft !== null}
                onClick={() => {
                  back.mutate({ params: { id: page.id }, body: { version: page.version, number } })
                }}
              >
                Go back to {number}
              </Button>
            )}
          </Box>
        ))}
      </Box>
      {page.draft !== null && rows.length > 1 && (
        <Typography variant="body2" color="textSecondary" sx={{ mt: 1 }}>
          To go back, publish or discard what is prepared first.
        </Typography>
      )}
    </Box>
  )
}
