import { scanRGBABuffer } from '@undecaf/zbar-wasm'
import jsQR from 'jsqr'
import { describe, expect, it } from 'vitest'
import { zxing } from '../../bench/decoders.ts'
import { encode, fullSide, LEVELS, scenePixels, symbolScene, type QrSymbol } from './index.ts'

const OPAQUE = 0xff000000

function picture(symbol: QrSymbol, scale: number) {
  const width = fullSide(symbol.side) * scale
  const pixels = new Uint32Array(width * width)
  scenePixels(symbolScene(symbol, 30, ''), scale).forEach((grey, i) => {
    pixels[i] = OPAQUE | (grey * 0x010101)
  })
  return { data: new Uint8ClampedArray(pixels.buffer), width, height: width, colorSpace: 'srgb' as const }
}

async function readByTwo(symbol: QrSymbol) {
  const image = picture(symbol, 3)
  const [zbar] = await scanRGBABuffer(image.data.buffer, image.width, image.height)
  return [zbar?.decode(), await zxing(image)]
}

describe.each(LEVELS)('every version at level %s', (level) => {
  it('reads the same in both decoders', async () => {
    for (let version = 1; version <= 40; version++) {
      const text = `HTTP://A/${String(version)}`
      expect([version, ...(await readByTwo(encode(text, level, version)))]).toEqual([version, text, text])
    }
  }, 120_000)
})

describe('texts of every mode', () => {
  const texts = [
    '4711',
    'HTTPS://GO.SALTMARSH.EXAMPLE/PIER',
    'https://saltmarsh.example/ä?b=ü#ß',
    'A'.repeat(500),
    '灯台守',
    // In several modes.
    'HTTPS://GO.SALTMARSH.EXAMPLE/S/20261126093500123456',
    'https://saltmarsh.example/ticket/4711081547110815471108154711',
    'geo:54.1234567,8.8654321?q=LARK%20HOLM%20PIER%20EAST%20GATE',
  ]
  it.each(texts)('read back: %s', async (text) => {
    expect(await readByTwo(encode(text, 'M'))).toEqual([text, text])
  })
  it.each(texts)('read back in the decoder the phone stand-in has: %s', (text) => {
    const { data, width, height } = picture(encode(text, 'M'), 4)
    expect(jsQR(data, width, height)?.data).toBe(text)
  })
})
