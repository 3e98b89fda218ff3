import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { describe, expect, it } from 'vitest'
import { sceneColours } from './colourPixels.ts'
import { encode } from './index.ts'
import { readLetters } from './letters.ts'
import { NEUTRAL_LOOKS } from './neutral.ts'
import { endOf, flattened, placed, type Outline } from './path.ts'
import { styledScene } from './styled.ts'

const require = createRequire(import.meta.url)
const fontFile = (name: string) => {
  const bytes = readFileSync(require.resolve(`@fontsource/atkinson-hyperlegible-${name}-normal.woff`))
  return bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength)
}
const letters = readLetters(
  [
    'next/files/atkinson-hyperlegible-next-latin-700',
    'next/files/atkinson-hyperlegible-next-latin-ext-700',
  ].map(fontFile),
)

/** The area between an outline and itself: by its sign, it runs one way or the other (the shoelace formula). */
const signedArea = (outline: Outline) => {
  const points = flattened(outline, 1e-4)
  return points.reduce((sum, [x, y], i) => {
    const [nextX, nextY] = points[(i + 1) % points.length] ?? [x, y]
    return sum + (x * nextY - nextX * y) / 2
  }, 0)
}

describe('letters', () => {
  it('are as wide as the font says, and pairs stand closer', () => {
    const width = (text: string) => letters.outline(text).width
    expect(width('')).toBe(0)
    expect(width('mmm')).toBeCloseTo(3 * width('m'), 9)
    expect(width('AV')).toBeLessThan(width('A') + width('V'))
    const xs = letters.outline('Pier').outlines.flatMap((outline) => outline.map((step) => endOf(step)[0]))
    expect(Math.min(...xs)).toBeGreaterThan(-0.1)
    expect(Math.max(...xs)).toBeLessThanOrEqual(width('Pier'))
  })

  it('have no strokes over one another, which would print as holes', () => {
    for (const sign of 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789äöüßåøæéčžłŐ&@%?!.,:;/-') {
      const { outlines, width } = letters.outline(sign)
      const scale = 200
      const { data } = sceneColours(
        {
          title: '',
          unitMm: 1,
          width: width + 1,
          height: 2,
          marks: [
            {
              kind: 'area',
              outlines: outlines.map((each) => placed(each, 0.5, 1.4)),
              ink: { kind: 'solid', colour: '#000' },
            },
          ],
        },
        scale,
      )
      let inked = 0
      for (let i = 3; i < data.length; i += 4) inked += (data[i] ?? 0) / 255
      const area = Math.abs(outlines.reduce((sum, each) => sum + signedArea(each), 0))
      expect([sign, area > 0.01]).toEqual([sign, true])
      expect([sign, Math.abs(inked / scale ** 2 - area) < 0.003]).toEqual([sign, true])
    }
  })

  it('that are missing are named, those of another file of the font are not', () => {
    expect(letters.missing('Fähre nach Łódź 灯台 灯')).toEqual(['灯', '台'])
    expect(letters.outline('灯').outlines).toEqual([])
    expect(letters.outline('Ł').outlines.length).toBeGreaterThan(0)
  })

  it('are refused where they are none', () => {
    expect(() => readLetters([new ArrayBuffer(100)])).toThrow()
  })

  it('stand about a symbol in its own width', () => {
    const framed = NEUTRAL_LOOKS.find(({ look }) => look.surround)?.look
    const { surround = null } = framed ?? {}
    if (!framed || !surround) throw new Error('No neutral look has a surround.')
    const symbol = encode('PIER', 'M')
    const scene = styledScene(
      symbol,
      { ...framed, surround: { ...surround, caption: 'Timetables and tickets for all three islands' } },
      30,
      '',
      'go.saltmarsh.example/pier',
      { text: letters.outline, pictureSize: () => null },
    )
    const [, , ...rest] = scene.marks
    const xs = rest.flatMap((mark) =>
      mark.kind === 'area' ? mark.outlines.flatMap((outline) => outline.map((step) => endOf(step)[0])) : [],
    )
    expect(Math.min(...xs)).toBeGreaterThanOrEqual(0)
    expect(Math.max(...xs)).toBeLessThanOrEqual(scene.width)
  })
})
