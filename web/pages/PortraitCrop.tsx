import {
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  Slider,
  Typography,
} from '@mui/material'
import { useEffect, useState } from 'react'
import Cropper, { type Area } from 'react-easy-crop'
import { nonce } from '../ui/index.ts'

const SIDE = 800
const QUALITY = 0.9
const ZOOM_MAX = 4

/** The chosen square of a picture, as a JPEG. */
async function cropped(source: string, area: Area): Promise<Blob> {
  const image = new Image()
  image.src = source
  await image.decode()
  const canvas = document.createElement('canvas')
  const side = Math.min(SIDE, Math.round(area.width))
  canvas.width = side
  canvas.height = side
  canvas.getContext('2d')?.drawImage(image, area.x, area.y, area.width, area.height, 0, 0, side, side)
  return new Promise((resolve, reject) => {
    canvas.toBlob(
      (blob) => {
        if (blob) resolve(blob)
        else reject(new Error('The picture could not be cut.'))
      },
      'image/jpeg',
      QUALITY,
    )
  })
}

/** Cuts a portrait out of a picture: moved with the pointer or the arrow keys, enlarged with a slider. */
export function PortraitCrop({
  file,
  take,
  close,
}: {
  readonly file: File
  readonly take: (file: File) => void
  readonly close: () => void
}) {
  const [source, setSource] = useState('')
  const [crop, setCrop] = useState({ x: 0, y: 0 })
  const [zoom, setZoom] = useState(1)
  const [area, setArea] = useState<Area | null>(null)
  const [fault, setFault] = useState<string | null>(null)
  useEffect(() => {
    const url = URL.createObjectURL(file)
    setSource(url)
    return () => {
      URL.revokeObjectURL(url)
    }
  }, [file])
  const save = () => {
    if (!area) return
    cropped(source, area).then(
      (blob) => {
        take(new File([blob], `${file.name.replace(/\.[A-Za-z0-9]{1,5}$/, '')}.jpg`, { type: blob.type }))
      },
      () => {
        setFault('This picture could not be cut. Save it as PNG, JPEG or WebP, and choose it again.')
      },
    )
  }
  return (
    <Dialog open onClose={close} fullWidth maxWidth="xs" aria-labelledby="portrait-title">
      <DialogTitle id="portrait-title">Cut the portrait</DialogTitle>
      <DialogContent>
        <Box sx={{ position: 'relative', height: 320, bgcolor: '#000' }}>
          {source !== '' && (
            <Cropper
              image={source}
              crop={crop}
              zoom={zoom}
              maxZoom={ZOOM_MAX}
              aspect={1}
              cropShape="round"
              showGrid={false}
              {...(nonce === undefined ? {} : { nonce })}
              onCropChange={setCrop}
              onZoomChange={setZoom}
              onCropComplete={(_percent, pixels) => {
                setArea(pixels)
              }}
            />
          )}
        </Box>
        <Typography variant="body2" id="portrait-zoom" sx={{ mt: 1.5 }}>
          Size
        </Typography>
        <Slider
          aria-labelledby="portrait-zoom"
          min={1}
          max={ZOOM_MAX}
          step={0.05}
          value={zoom}
          onChange={(_event, next) => {
            setZoom(typeof next === 'number' ? next : 1)
          }}
        />
        {fault !== null && (
          <Typography variant="body2" color="error" role="alert">
            {fault}
          </Typography>
        )}
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={close}>
          Cancel
        </Button>
        <Button variant="contained" disabled={!area} onClick={save}>
          Use portrait
        </Button>
      </DialogActions>
    </Dialog>
  )
}
