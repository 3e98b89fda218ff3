import { Box, Stack, Typography } from '@mui/material'
import { snippets, type GoalRow, type GoalSite } from '@flimbo/core/goals'
import { Copyable } from '../ui/index.ts'

/** A piece of text to be put somewhere else, as it is. */
export function Snippet({ title, text, note }: { title: string; text: string; note?: string }) {
  return (
    <Box>
      <Typography variant="body2" sx={{ fontWeight: 650 }}>
        {title}
      </Typography>
      {note && (
        <Typography variant="body2" color="textSecondary">
          {note}
        </Typography>
      )}
      <Box sx={{ border: 1, borderColor: 'divider', borderRadius: 1, p: 1, mt: 0.5, whiteSpace: 'pre-wrap' }}>
        <Copyable value={text} label={title} />
      </Box>
    </Box>
  )
}

/** What a goal needs on the site, beside the script that is there for all of them. */
export function Snippets({ site, goal: { kind, key, signedOnly } }: { site: GoalSite; goal: GoalRow }) {
  const made = snippets(site, key)
  if (kind === 'address')
    return <Typography variant="body2">Nothing but the script of Settings › Goals on sites.</Typography>
  return (
    <Stack spacing={1.5}>
      {kind === 'click' && (
        <Snippet title="Instead of the selector" note="In the page’s own markup." text={made.click} />
      )}
      {kind === 'sent' && !signedOnly && (
        <>
          <Snippet
            title="Sent by the page"
            note="Where it is known that the goal was reached."
            text={made.push}
          />
          <Snippet
            title="As a picture"
            note={'REFERENCE is what the parameter “flimbo” of the first address said.'}
            text={made.image}
          />
        </>
      )}
      {kind === 'sent' && <Snippet title="Sent by the site’s server" text={made.call} />}
    </Stack>
  )
}
