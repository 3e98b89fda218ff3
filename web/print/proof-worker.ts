import { filesApi } from '@flimbo/core/files'
import { filesOf } from '@flimbo/core/houseStyles'
import {
  choiceCosts,
  fixesFor,
  gradesOf,
  printedSymbol,
  proof,
  type Piece,
  type Pixels,
  type ProofParts,
} from '@flimbo/core/symbol'
import jsQR from 'jsqr'
import wasm from 'zxing-wasm/reader/zxing_reader.wasm?url'
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader'
import { hrefOf } from '../api/index.ts'
import { readFaces } from '../symbol/index.ts'
import type { MeasuredFix, ProofAnswer, ProofOrder } from './proofing.ts'

// Everything that measuring takes runs here, off the thread that people work on.

prepareZXingModule({ overrides: { locateFile: () => wasm } })
const faces = readFaces()
const pictures = new Map<string, Promise<Pixels>>()

async function pixelsOf(sum: string): Promise<Pixels> {
  const answer = await fetch(hrefOf(filesApi.content, { params: { sum }, query: { preview: 'yes' } }))
  const image = await createImageBitmap(await answer.blob())
  const canvas = new OffscreenCanvas(image.width, image.height)
  const drawing = canvas.getContext('2d')
  if (!drawing) throw new Error('This browser cannot draw pictures.')
  drawing.drawImage(image, 0, 0)
  return drawing.getImageData(0, 0, image.width, image.height)
}

async function partsFor({ look, placement, sizes }: ProofOrder): Promise<ProofParts> {
  const found = new Map<string, Pixels>()
  for (const sum of [...filesOf(look), ...(placement ? [placement.file] : [])]) {
    const pixels = pictures.get(sum) ?? pixelsOf(sum)
    pictures.set(sum, pixels)
    found.set(sum, await pixels)
  }
  return {
    text: (await faces).setText,
    pictureSize: (file) => sizes[file] ?? null,
    pictures: found,
    decoders: [
      async ({ width, height, data }) =>
        (await readBarcodes({ data, width, height, colorSpace: 'srgb' }, { formats: ['QRCode'] }))[0]?.text ??
        null,
      ({ width, height, data }) =>
        jsQR(data, width, height, { inversionAttempts: 'dontInvert' })?.data ?? null,
    ],
  }
}

const answer = (given: ProofAnswer) => {
  self.postMessage(given)
}

async function measure(order: ProofOrder): Promise<void> {
  const { id, text, level, look, mm, link, placement, viewingM } = order
  const parts = await partsFor(order)
  const piece: Piece = { symbol: printedSymbol(text, level), look, mm, link, placement, viewingM }
  answer({ id, kind: 'grades', grades: gradesOf(piece, parts) })
  const found = await proof(piece, parts)
  answer({ id, kind: 'proof', proof: found })
  const fixes: MeasuredFix[] = []
  for (const fix of fixesFor(piece, found)) {
    const { level: raised, ...set } = fix.set
    const symbol = raised ? printedSymbol(text, raised) : piece.symbol
    const { readiness } = await proof({ ...piece, ...set, symbol }, parts)
    fixes.push({ ...fix, readiness })
    answer({ id, kind: 'fixes', fixes: [...fixes] })
  }
  answer({ id, kind: 'costs', costs: await choiceCosts(piece, parts, found) })
}

self.onmessage = ({ data }: MessageEvent<ProofOrder>) => {
  measure(data).catch((error: unknown) => {
    answer({ id: data.id, kind: 'fault', sentence: error instanceof Error ? error.message : String(error) })
  })
}
