import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  encode,
  fullSide,
  LEVELS,
  QUIET_ZONE,
  rasterPlan,
  RASTER_SIDE_MAX,
  RasterTooLarge,
  pathData,
  sceneSvg,
  scenePixels,
  symbolScene,
  type Area,
  type QrSymbol,
} from './index.ts'

/** Fills a path of unit steps by the even-odd rule, along rows through module centres: an own, other way to read it. */
function filled(path: string, side: number): boolean[][] {
  const crossings = Array.from({ length: side }, () => new Set<number>())
  let [x, y, startX, startY] = [0, 0, 0, 0]
  const upright = (to: number) => {
    for (let row = Math.min(y, to); row < Math.max(y, to); row++) {
      const line = crossings[row]
      if (line?.has(x)) line.delete(x)
      else line?.add(x)
    }
    y = to
  }
  for (const [, step = '', a = '0', b = '0'] of path.matchAll(/([Mhvz])(-?\d+)? ?(-?\d+)?/g)) {
    if (step === 'M') [x, y, startX, startY] = [Number(a), Number(b), Number(a), Number(b)]
    if (step === 'h') x += Number(a)
    if (step === 'v') upright(y + Number(a))
    if (step === 'z') {
      upright(startY)
      x = startX
    }
  }
  return crossings.map((line) =>
    Array.from({ length: side }, (_, i) => [...line].filter((at) => at <= i).length % 2 === 1),
  )
}

/** The outlines of a symbol's dark modules as they stand in files. */
function pathOf(symbol: Pick<QrSymbol, 'modules' | 'side'>): string {
  const ink = symbolScene(symbol, 30, '').marks.at(-1) as Area
  return pathData(ink.outlines)
}

const matrix = fc.integer({ min: 1, max: 12 }).chain((side) =>
  fc
    .array(fc.array(fc.boolean(), { minLength: side, maxLength: side }), {
      minLength: side,
      maxLength: side,
    })
    .map((modules) => ({ modules, side })),
)

describe('the outline of a symbol', () => {
  it('fills exactly the dark modules, inside the quiet zone', () => {
    fc.assert(
      fc.property(matrix, ({ modules, side }) => {
        const drawn = filled(pathOf({ modules, side }), fullSide(side))
        drawn.forEach((row, y) => {
          row.forEach((dark, x) => {
            expect(dark).toBe(modules[y - QUIET_ZONE]?.[x - QUIET_ZONE] ?? false)
          })
        })
      }),
    )
  })

  it('is one path with far fewer corners than modules', () => {
    const symbol = encode('HTTPS://GO.SALTMARSH.EXAMPLE/PIER', 'M')
    const svg = sceneSvg(symbolScene(symbol, 30, 'Pier poster'))
    expect(svg.match(/<path/g)).toHaveLength(1)
    expect(svg).toContain(
      `width="30mm" height="30mm" viewBox="0 0 ${String(fullSide(symbol.side))} ${String(fullSide(symbol.side))}"`,
    )
  })

  it('escapes its title', () => {
    expect(sceneSvg(symbolScene(encode('A', 'M'), 30, '<Bow & Stern>'))).toContain(
      '<title>&lt;Bow &amp; Stern&gt;</title>',
    )
  })
})

describe('the pixels of a symbol', () => {
  it('are whole ones a module, at least as fine as asked, and exactly as wide', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 21, max: 177 }),
        fc.double({ min: 5, max: 100, noNaN: true }),
        fc.integer({ min: 36, max: 1200 }),
        (side, mm, dpi) => {
          const full = fullSide(side)
          const plan = rasterPlan({ unitMm: mm / full, width: full, height: full }, dpi)
          expect(plan.width).toBe(plan.scale * full)
          expect(plan.dpi).toBeGreaterThanOrEqual(dpi * (1 - 1e-6))
          expect((plan.width / plan.dpi) * 25.4).toBeCloseTo(mm, 6)
        },
      ),
    )
  })

  it('are refused where they would be too many', () => {
    const wide = (mm: number) => ({ unitMm: mm / 33, width: 33, height: 33 })
    expect(() => rasterPlan(wide(5000), 600)).toThrow(RasterTooLarge)
    expect(rasterPlan(wide(400), 1000).width).toBeLessThanOrEqual(RASTER_SIDE_MAX)
  })

  it.each(LEVELS)('show the same modules as the outline at level %s', (level) => {
    const symbol = encode('HTTPS://GO.SALTMARSH.EXAMPLE/PIER', level)
    const scale = 3
    const pixels = scenePixels(symbolScene(symbol, 30, ''), scale)
    const width = fullSide(symbol.side) * scale
    const drawn = filled(pathOf(symbol), fullSide(symbol.side))
    for (let y = 0; y < width; y++)
      for (let x = 0; x < width; x++) {
        if ((pixels[y * width + x] === 0) !== drawn[Math.floor(y / scale)]?.[Math.floor(x / scale)])
          throw new Error(`Pixel ${String(x)}, ${String(y)} differs`)
      }
    expect(pixels).toHaveLength(width * width)
  })
})
