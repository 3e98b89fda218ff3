import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/**
 * Renders a document with Ghostscript, as a printer's machine would: raw bytes, three or four a pixel, rows from the
 * top, the pages one after the other. An EPS is cropped to its box, of a PDF the whole page is drawn.
 *
 * @throws Error with what Ghostscript says where it warns of anything
 */
export function rendered(document: string | Uint8Array, device: 'bitrgb' | 'bitcmyk', dpi: number): Buffer {
  const directory = mkdtempSync(join(tmpdir(), 'flimbo-gs-'))
  try {
    const [source, target] = [join(directory, 'in'), join(directory, 'out.raw')]
    writeFileSync(source, document)
    const { status, stdout, stderr } = spawnSync(
      'gs',
      [
        '-q',
        '-dNOPAUSE',
        '-dBATCH',
        '-dSAFER',
        '-dEPSCrop',
        `-sDEVICE=${device}`,
        '-dGrayValues=256',
        `-r${String(dpi)}`,
        `-sOutputFile=${target}`,
        source,
      ],
      { encoding: 'utf8' },
    )
    if (status !== 0 || stdout !== '' || stderr !== '') throw new Error(`Ghostscript: ${stdout}${stderr}`)
    return readFileSync(target)
  } finally {
    rmSync(directory, { recursive: true, force: true })
  }
}

/** Red, green and blue bytes as decoders take them. */
export function frameOf(bytes: Uint8Array, width: number, height: number) {
  if (bytes.length < width * height * 3) throw new RangeError('There are fewer pixels than that')
  const data = new Uint8ClampedArray(width * height * 4).fill(255)
  for (let i = 0; i < width * height; i++)
    for (let channel = 0; channel < 3; channel++) data[i * 4 + channel] = bytes[i * 3 + channel] ?? 0
  return { width, height, data }
}
