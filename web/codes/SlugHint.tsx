import { Button, Stack, Typography } from '@mui/material'
import { codesApi } from '@flimbo/core/codes'
import { useDeferredValue } from 'react'
import { useAnswer } from '../api/index.ts'

/** Says while it is typed whether a short link is still free, and offers free ones like it where it is not. */
export function SlugHint({
  typed,
  campaignId,
  domainId,
  own,
  choose,
}: {
  typed: string
  campaignId: number
  domainId?: number | undefined
  own?: string
  choose: (slug: string) => void
}) {
  const slug = useDeferredValue(typed.trim())
  const { data } = useAnswer(
    codesApi.slug,
    { params: { slug }, query: { campaignId, domainId } },
    { enabled: slug !== '' && slug.toUpperCase() !== own },
  )
  if (slug === '' || slug.toUpperCase() === own || !data) return null
  if (data.free)
    return (
      <Typography variant="body2" role="status" color="primary">
        {data.shortLink} is free.
      </Typography>
    )
  return (
    <Stack role="status" spacing={0.5}>
      <Typography variant="body2" color="error">
        {data.why}
      </Typography>
      {data.instead.length > 0 && (
        <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
          <Typography variant="body2" color="textSecondary">
            Free:
          </Typography>
          {data.instead.map((each) => (
            <Button
              key={each}
              size="small"
              variant="outlined"
              onClick={() => {
                choose(each)
              }}
            >
              {each}
            </Button>
          ))}
        </Stack>
      )}
    </Stack>
  )
}
