import { Typography } from '@mui/material'
import { codesApi, shortLink } from '@flimbo/core/codes'
import { useDeferredValue } from 'react'
import { useAnswer } from '../api/index.ts'
import { useSession } from '../workspace/index.ts'

/** Says while it is typed whether a short link is still free. */
export function SlugHint({ typed }: { typed: string }) {
  const { door } = useSession()
  const slug = useDeferredValue(typed.trim())
  const { data } = useAnswer(codesApi.slug, { params: { slug } }, { enabled: slug !== '' })
  if (slug === '' || !data) return null
  return data.free
    ? <Typography variant="body2" role="status" color="primary">{shortLink(door, data.slug)} is free.</Typography>
    : <Typography variant="body2" role="status" color="error">{data.why}</Typography>
}
