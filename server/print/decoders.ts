import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import jsQR from 'jsqr'
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader'
import type { Decoder } from '@flimbo/core/symbol'

// Two decoders that share nothing with the encoder or with each other.
const wasm = readFileSync(createRequire(import.meta.url).resolve('zxing-wasm/reader/zxing_reader.wasm'))
await prepareZXingModule({
  overrides: { wasmBinary: wasm.buffer.slice(wasm.byteOffset, wasm.byteOffset + wasm.byteLength) },
  fireImmediately: true,
})

export const zxing: Decoder = async ({ width, height, data }) =>
  (await readBarcodes({ data, width, height, colorSpace: 'srgb' }, { formats: ['QRCode'] }))[0]?.text ?? null

/** Dark on light alone: looking for the inverse as well takes twice as long. */
export const jsqr: Decoder = ({ width, height, data }) =>
  jsQR(data, width, height, { inversionAttempts: 'dontInvert' })?.data ?? null
