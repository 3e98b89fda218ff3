import type { ChartOption } from '@flimbo/core/charts'

/** What a chart can be taken away as. */
export type ChartFile = 'png' | 'svg'

/** Pixels of a picture for each on the screen. */
const PIXELS = 2
/** So wide is a chart in a file, in CSS pixels. */
export const CHART_FILE_PX = 1120

/** A chart drawn anew as a picture of its own, on the ground it stands on. */
export async function drawChart(
  option: ChartOption,
  file: ChartFile,
  { height, background }: { readonly height: number; readonly background: string },
): Promise<Blob> {
  const [{ init, use: register }, { SVGRenderer }] = await Promise.all([
    import('echarts/core'),
    import('echarts/renderers'),
  ])
  register([SVGRenderer])
  const drawn = init(null, null, { renderer: 'svg', ssr: true, width: CHART_FILE_PX, height })
  drawn.setOption({ ...option, backgroundColor: background })
  const svg = drawn.renderToSVGString()
  drawn.dispose()
  if (file === 'svg') return new Blob([svg], { type: 'image/svg+xml' })
  return pictureOf(option, height, background)
}

/** The same in pixels: drawn on a canvas of its own, with the faces that the page has. */
async function pictureOf(option: ChartOption, height: number, background: string): Promise<Blob> {
  const { init } = await import('echarts/core')
  const canvas = document.createElement('canvas')
  const drawn = init(canvas, null, { width: CHART_FILE_PX, height, devicePixelRatio: PIXELS })
  drawn.setOption({ ...option, backgroundColor: background })
  drawn.getZr().flush()
  const blob = await new Promise<Blob | null>((done) => {
    canvas.toBlob(done, 'image/png')
  })
  drawn.dispose()
  if (!blob) throw new Error('The picture could not be drawn. Take the SVG, or try again.')
  return blob
}

/** Hands a file to the person. */
export function saveFile(blob: Blob, name: string): void {
  const address = URL.createObjectURL(blob)
  const link = document.createElement('a')
  link.href = address
  link.download = name
  link.click()
  // The browser takes it in its own time.
  setTimeout(() => {
    URL.revokeObjectURL(address)
  }, 60_000)
}
