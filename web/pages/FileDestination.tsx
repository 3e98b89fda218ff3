import { Typography } from '@mui/material'
import { pagesApi } from '@flimbo/core/pages'
import { sentenceOf, useChange } from '../api/index.ts'
import { FileField } from './FileField.tsx'

/** An uploaded file as a destination of its own: it becomes a page that is nothing else, with what comes of it. */
export function FileDestination({
  campaignId,
  made,
}: {
  campaignId: number
  made: (pageId: number) => void
}) {
  const create = useChange(pagesApi.createForFile)
  return (
    <>
      <FileField
        label="A file by itself"
        takes="any"
        file={undefined}
        instead={undefined}
        help="A PDF or picture opens at once; recordings and films are shown with a player."
        fault={
          create.error ? sentenceOf(create.error, 'The file could not be made a destination.') : undefined
        }
        take={(file) => {
          if (!file) return
          create.mutate(
            { body: { campaignId, key: file.key } },
            {
              onSuccess: ({ id }) => {
                made(id)
              },
            },
          )
        }}
      />
      {create.isPending && (
        <Typography variant="caption" role="status">
          Making it ready…
        </Typography>
      )}
    </>
  )
}
