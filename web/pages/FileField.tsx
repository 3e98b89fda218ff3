import DeleteIcon from '@mui/icons-material/DeleteOutlineOutlined'
import { Box, Button, IconButton, Menu, MenuItem, Stack, Typography } from '@mui/material'
import { filesApi, isPictureType, type StoredFile } from '@flimbo/core/files'
import type { FileTake } from '@flimbo/core/fields'
import { lazy, Suspense, useRef, useState } from 'react'
import { hrefOf, useAnswer } from '../api/index.ts'
import { useUpload } from '../print/index.ts'

const PortraitCrop = lazy(async () => ({ default: (await import('./PortraitCrop.tsx')).PortraitCrop }))

const ACCEPTS: Readonly<Record<FileTake, string>> = {
  picture: 'image/png,image/jpeg,image/webp,image/svg+xml',
  portrait: 'image/png,image/jpeg,image/webp',
  audio: '.mp3,.m4a,.wav,.ogg,audio/*',
  video: '.mp4,.webm,video/mp4,video/webm',
  captions: '.vtt,text/vtt',
  any: '',
}

interface Props {
  readonly label: string
  readonly takes: FileTake
  readonly file: StoredFile | undefined
  /** What is shown where this language has none of its own. */
  readonly instead: StoredFile | undefined
  readonly take: (file: StoredFile | null) => void
  readonly help?: string | undefined
  readonly fault?: string | undefined
}

/** An uploaded file, or a new one. */
export function FileField({ label, takes, file, instead, take, help, fault }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const field = useRef<HTMLInputElement>(null)
  const { send, isUploading, fault: wrong } = useUpload()
  const files = useAnswer(
    filesApi.list,
    { query: { pageSize: 30, order: 'desc', of: takes === 'portrait' ? 'picture' : takes } },
    { enabled: anchor !== null },
  )
  const [uncut, setUncut] = useState<File | null>(null)
  const upload = (given: File | undefined) => {
    void send(given).then((stored) => {
      if (stored) take(stored)
    })
  }
  const close = () => {
    setAnchor(null)
  }
  const shown = file ?? instead
  const sentence = wrong ?? fault
  return (
    <Box role="group" aria-label={label}>
      <Typography variant="caption" color={sentence ? 'error' : 'textSecondary'}>
        {label}
      </Typography>
      <Stack direction="row" sx={{ gap: 1, alignItems: 'center' }}>
        {shown && isPictureType(shown.type) && <Thumbnail sum={shown.sum} />}
        {shown && (
          <Typography variant="body2" noWrap sx={{ flex: '0 1 auto' }}>
            {shown.name}
            {!file && ' (from another language)'}
          </Typography>
        )}
        <Button
          size="small"
          variant="outlined"
          disabled={isUploading}
          aria-haspopup="menu"
          sx={{ flexShrink: 0 }}
          onClick={(event) => {
            setAnchor(event.currentTarget)
          }}
        >
          {isUploading ? 'Uploading…' : `${file ? 'Change' : 'Choose'} ${label.toLowerCase()}`}
        </Button>
        {file && (
          <IconButton
            size="small"
            aria-label={`Remove ${label.toLowerCase()}`}
            onClick={() => {
              take(null)
            }}
          >
            <DeleteIcon fontSize="small" />
          </IconButton>
        )}
      </Stack>
      <Menu open={anchor !== null} anchorEl={anchor} onClose={close} sx={{ maxHeight: 400 }}>
        <MenuItem
          onClick={() => {
            close()
            field.current?.click()
          }}
        >
          Upload a file…
        </MenuItem>
        {(files.data?.rows ?? []).map((each) => (
          <MenuItem
            key={each.key}
            selected={each.key === file?.key}
            onClick={() => {
              close()
              take(each)
            }}
          >
            {isPictureType(each.type) && <Thumbnail sum={each.sum} />}
            <Typography variant="body2" noWrap sx={{ ml: 1, maxWidth: 260 }}>
              {each.name}
            </Typography>
          </MenuItem>
        ))}
      </Menu>
      <input
        ref={field}
        type="file"
        hidden
        aria-label={`${label}: file to upload`}
        accept={ACCEPTS[takes]}
        onChange={({ target }) => {
          const given = target.files?.[0]
          if (takes === 'portrait' && given) setUncut(given)
          else upload(given)
          target.value = ''
        }}
      />
      {uncut && (
        <Suspense>
          <PortraitCrop
            file={uncut}
            close={() => {
              setUncut(null)
            }}
            take={(cut) => {
              setUncut(null)
              upload(cut)
            }}
          />
        </Suspense>
      )}
      {(sentence ?? help) !== undefined && (
        <Typography variant="caption" color={sentence ? 'error' : 'textSecondary'} component="p">
          {sentence ?? help}
        </Typography>
      )}
    </Box>
  )
}

function Thumbnail({ sum }: { sum: string }) {
  return (
    <Box
      component="img"
      alt=""
      src={hrefOf(filesApi.content, { params: { sum }, query: { preview: 'yes' } })}
      sx={{ width: 36, height: 36, objectFit: 'cover', border: 1, borderColor: 'divider', borderRadius: 0.5 }}
    />
  )
}
