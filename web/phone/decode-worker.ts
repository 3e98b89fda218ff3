import jsQR from 'jsqr'

/** Pixels in, what a symbol among them carries out; null where none reads. Off the main thread: a photograph takes a while. */
self.onmessage = ({ data }: MessageEvent<ImageData>) => {
  const found = jsQR(data.data, data.width, data.height)
  self.postMessage(found?.data ?? null)
}
