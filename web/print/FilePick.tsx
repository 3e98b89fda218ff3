import { Box, Button, Menu, MenuItem, Typography } from '@mui/material'
import { filesApi, PICTURE_TYPES, type StoredFile } from '@flimbo/core/files'
import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { hrefOf, sentenceOf, upload, useAnswer } from '../api/index.ts'

/** Uploads a picture. @returns it as it is kept, or why it was not taken */
function useUpload() {
  const queries = useQueryClient()
  const [isUploading, setUploading] = useState(false)
  const [fault, setFault] = useState<string | null>(null)
  async function send(file: File | undefined): Promise<StoredFile | null> {
    if (!file) return null
    setUploading(true)
    setFault(null)
    try {
      const stored = await upload(
        filesApi.upload,
        { query: { name: file.name.slice(0, 200) || 'picture' } },
        file,
      )
      await queries.invalidateQueries({ queryKey: [filesApi.list.path] })
      return stored
    } catch (error) {
      setFault(sentenceOf(error, 'The picture could not be uploaded. Try again.'))
      return null
    } finally {
      setUploading(false)
    }
  }
  return { send, isUploading, fault }
}

/** A picture among those uploaded, or a new one. */
export function FilePick({
  label,
  sum,
  take,
}: {
  label: string
  sum: string | null
  take: (sum: string) => void
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const field = useRef<HTMLInputElement>(null)
  const { send, isUploading, fault } = useUpload()
  const files = useAnswer(
    filesApi.list,
    { query: { pageSize: 30, order: 'desc' } },
    { enabled: anchor !== null },
  )
  const choose = sum === null ? `Choose ${label.toLowerCase()}` : 'Change'
  const close = () => {
    setAnchor(null)
  }
  return (
    <>
      {sum !== null && <Thumbnail sum={sum} />}
      <Button
        size="small"
        variant="outlined"
        disabled={isUploading}
        aria-haspopup="menu"
        onClick={(event) => {
          setAnchor(event.currentTarget)
        }}
      >
        {isUploading ? 'Uploading…' : choose}
      </Button>
      <Menu open={anchor !== null} anchorEl={anchor} onClose={close} sx={{ maxHeight: 400 }}>
        <MenuItem
          onClick={() => {
            close()
            field.current?.click()
          }}
        >
          Upload a picture…
        </MenuItem>
        {(files.data?.rows ?? []).map((file) => (
          <MenuItem
            key={file.sum}
            selected={file.sum === sum}
            onClick={() => {
              close()
              take(file.sum)
            }}
          >
            <Thumbnail sum={file.sum} />
            <Typography variant="body2" noWrap sx={{ ml: 1, maxWidth: 240 }}>
              {file.name}
            </Typography>
          </MenuItem>
        ))}
      </Menu>
      <input
        ref={field}
        type="file"
        hidden
        aria-label={`${label}: file to upload`}
        accept={PICTURE_TYPES.join(',')}
        onChange={(event) => {
          void send(event.target.files?.[0]).then((file) => {
            if (file) take(file.sum)
          })
          event.target.value = ''
        }}
      />
      {fault !== null && (
        <Typography variant="caption" color="error" role="alert" sx={{ width: '100%' }}>
          {fault}
        </Typography>
      )}
    </>
  )
}

function Thumbnail({ sum }: { sum: string }) {
  return (
    <Box
      component="img"
      alt=""
      src={hrefOf(filesApi.content, { params: { sum }, query: { preview: 'yes' } })}
      sx={{ width: 28, height: 28, objectFit: 'contain', bgcolor: '#fff', border: 1, borderColor: 'divider' }}
    />
  )
}
