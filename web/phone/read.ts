/** Larger pictures are drawn smaller: symbols still read, and a phone's photograph does not take seconds. */
const SIDE_MAX = 1600
const SIDE_MIN = 400

/** The picture could not be opened at all. */
export class NoPicture extends Error {
  override readonly name = 'NoPicture'
}

async function pixelsOf(picture: Blob): Promise<ImageData> {
  const url = URL.createObjectURL(picture)
  try {
    const image = new Image()
    image.src = url
    await image.decode().catch((cause: unknown) => {
      throw new NoPicture(
        'This file is no picture a browser can open. Choose an SVG, PNG, JPEG, WebP or GIF.',
        { cause },
      )
    })
    const side = Math.max(image.naturalWidth, image.naturalHeight, 1)
    const scale = side > SIDE_MAX ? SIDE_MAX / side : Math.max(1, SIDE_MIN / side)
    const canvas = document.createElement('canvas')
    canvas.width = Math.max(1, Math.round(image.naturalWidth * scale))
    canvas.height = Math.max(1, Math.round(image.naturalHeight * scale))
    const drawing = canvas.getContext('2d', { willReadFrequently: true })
    if (!drawing) throw new NoPicture('This browser cannot draw pictures.')
    drawing.fillStyle = '#fff'
    drawing.fillRect(0, 0, canvas.width, canvas.height)
    drawing.drawImage(image, 0, 0, canvas.width, canvas.height)
    return drawing.getImageData(0, 0, canvas.width, canvas.height)
  } finally {
    URL.revokeObjectURL(url)
  }
}

/**
 * Reads the symbol in a picture, as a camera would: from its pixels, by a decoder that shares nothing
 * with the encoder. Null where there is none. @throws NoPicture
 */
export async function readSymbol(picture: Blob): Promise<string | null> {
  const pixels = await pixelsOf(picture)
  const worker = new Worker(new URL('./decode-worker.ts', import.meta.url), { type: 'module' })
  try {
    return await new Promise<string | null>((resolve, reject) => {
      worker.onmessage = ({ data }: MessageEvent<string | null>) => {
        resolve(data)
      }
      worker.onerror = () => {
        reject(new Error('The decoder stopped'))
      }
      worker.postMessage(pixels, [pixels.data.buffer])
    })
  } finally {
    worker.terminate()
  }
}
