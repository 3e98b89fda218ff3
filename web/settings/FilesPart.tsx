import {
  Box,
  Button,
  LinearProgress,
  Pagination,
  Skeleton,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material'
import { filesApi, type StoredFile } from '@flimbo/core/files'
import { number } from '@flimbo/core/formats'
import { useState } from 'react'
import { hrefOf, sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { useSession } from '../session/index.ts'
import { Empty, Fault, Sheet, Trouble, When } from '../ui/index.ts'

const PAGE = 50
const MB = 1024 * 1024

const inMb = (bytes: number) =>
  bytes < MB ? `${number(Math.ceil(bytes / 1024))} kB` : `${number(Math.round((bytes / MB) * 10) / 10)} MB`

/** What was uploaded, how much room it takes, and what uses each file. */
export function FilesPart() {
  const [page, setPage] = useState(0)
  const files = useAnswer(filesApi.list, { query: { page, pageSize: PAGE, order: 'desc' } })
  const remove = useChange(filesApi.remove)
  if (files.isError)
    return (
      <Trouble
        error={files.error}
        retry={() => {
          void files.refetch()
        }}
      />
    )
  if (!files.data) return <Skeleton variant="rounded" height={240} />
  const { rows, total, usedBytes, quotaBytes } = files.data
  const pages = Math.ceil(total / PAGE)
  return (
    <Sheet
      title="Files"
      aside={
        <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center', width: 340 }}>
          <LinearProgress
            aria-label="Room that files take"
            variant="determinate"
            value={Math.min(100, (usedBytes / quotaBytes) * 100)}
            sx={{ flex: 1 }}
          />
          <Typography variant="body2" color="textSecondary" noWrap>
            {inMb(usedBytes)} of {inMb(quotaBytes)}
          </Typography>
        </Stack>
      }
      pad={false}
    >
      {remove.isError && (
        <Box sx={{ p: 2 }}>
          <Fault sentence={sentenceOf(remove.error, 'The file could not be deleted.')} />
        </Box>
      )}
      {total === 0 ? (
        <Empty
          title="No files yet"
          text="Logos and pictures that are uploaded on Print stand here, with what uses each."
        />
      ) : (
        <Table size="small" aria-label="Files" sx={{ tableLayout: 'fixed' }}>
          <TableHead>
            <TableRow>
              <TableCell sx={{ width: 56 }} aria-label="Picture" />
              <TableCell>Name</TableCell>
              <TableCell sx={{ width: 170 }}>Size</TableCell>
              <TableCell sx={{ width: 170 }}>Uploaded</TableCell>
              <TableCell>Used by</TableCell>
              <TableCell sx={{ width: 90 }} aria-label="Actions" />
            </TableRow>
          </TableHead>
          <TableBody>
            {rows.map((file) => (
              <FileRow
                key={file.sum}
                file={file}
                remove={() => {
                  remove.mutate({ params: { sum: file.sum } })
                }}
              />
            ))}
          </TableBody>
        </Table>
      )}
      {pages > 1 && (
        <Pagination
          size="small"
          sx={{ p: 1 }}
          count={pages}
          page={page + 1}
          onChange={(_event, to) => {
            setPage(to - 1)
          }}
        />
      )}
    </Sheet>
  )
}

function FileRow({ file, remove }: { file: StoredFile; remove: () => void }) {
  const {
    workspace: { zone },
  } = useSession()
  const { sum, name, width, height, bytes, createdAt, by, uses } = file
  return (
    <TableRow>
      <TableCell>
        <Box
          component="img"
          alt=""
          src={hrefOf(filesApi.content, { params: { sum }, query: { preview: 'yes' } })}
          sx={{ width: 36, height: 36, objectFit: 'contain', bgcolor: '#fff', display: 'block' }}
        />
      </TableCell>
      <TableCell sx={{ overflowWrap: 'anywhere' }}>{name}</TableCell>
      <TableCell>
        {Math.round(width)} × {Math.round(height)}, {inMb(bytes)}
      </TableCell>
      <TableCell>
        <When at={createdAt} zone={zone} /> by {by}
      </TableCell>
      <TableCell sx={{ overflowWrap: 'anywhere' }}>
        {uses.length === 0 ? (
          <Typography variant="body2" color="textSecondary">
            nothing
          </Typography>
        ) : (
          uses.map((use) => use.name).join(', ')
        )}
      </TableCell>
      <TableCell align="right">
        <Button
          size="small"
          color="error"
          disabled={uses.length > 0}
          onClick={remove}
          aria-label={`Delete ${name}`}
        >
          Delete
        </Button>
      </TableCell>
    </TableRow>
  )
}
