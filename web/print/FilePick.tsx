import { Box, Button, Menu, MenuItem, Typography } from '@mui/material'
import { filesApi, PICTURE_TYPES } from '@flimbo/core/files'
import { useRef, useState } from 'react'
import { hrefOf, useAnswer } from '../api/index.ts'
import { useUpload } from './useUpload.ts'

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
    { query: { pageSize: 30, order: 'desc', of: 'picture' } },
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
