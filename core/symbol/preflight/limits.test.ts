import { describe, expect, it } from 'vitest'
import { jsqr, zxing } from '../../../bench/decoders.ts'
import { sceneColours } from '../colourPixels.ts'
import { encode } from '../encode.ts'
import { PLAIN_LOOK, type Look } from '../look.ts'
import { styledScene } from '../styled.ts'
import { CAMERA, CONDITIONS, findLimits, lightOf, type ConditionName, type Subject } from './index.ts'

const BOTH = [zxing, jsqr]
const TEXT = 'HTTPS://GO.SALTMARSH.EXAMPLE/PIER'

/** A symbol of a look as it lies on a table of a light gray. */
function subjectOf(look: Look, mm = 30): Subject {
  const parts = { text: () => ({ width: 0, outlines: [] }), pictureSize: () => ({ width: 10, height: 10 }) }
  const scene = styledScene(encode(TEXT, 'M'), look, mm, '', '', parts)
  const artwork = lightOf(sceneColours(scene, 8), 1)
  return { artwork, widthMm: scene.width * scene.unitMm, moduleMm: scene.unitMm, around: 0.7 }
}
async function limitsOf(look: Look, names: readonly ConditionName[], mm = 30) {
  const conditions = CONDITIONS.filter(({ name }) => names.includes(name))
  const limits = await findLimits(subjectOf(look, mm), TEXT, BOTH, conditions)
  return limits.map(({ value }) => value)
}
const inInk = (rgb: string): Look => ({ ...PLAIN_LOOK, ink: { kind: 'solid', tint: { rgb, cmyk: null } } })

describe('a plain symbol', () => {
  it('is read as far as the trade says, and stands something of everything', async () => {
    const limits = await findLimits(subjectOf(PLAIN_LOOK), TEXT, BOTH)
    const value = (name: ConditionName) => limits.find((each) => each.name === name)?.value ?? NaN
    // Ten times its side at least; below 6 cm no lens is sharp. Common practice.
    expect(value('far')).toBeGreaterThan(300)
    expect(value('far')).toBeLessThan(900)
    expect(value('near')).toBeLessThan(75)
    expect(value('near')).toBeGreaterThanOrEqual(CAMERA.nearestMm)
    expect(value('tilt')).toBeGreaterThan(45)
    expect(value('dim')).toBeLessThan(0.2)
    expect(value('bend')).toBeLessThan(20)
    for (const name of ['defocus', 'motion', 'glare', 'ink-spread', 'ink-loss', 'torn', 'scratches'] as const)
      expect([name, value(name) > 0]).toEqual([name, true])
  }, 60_000)

  it('gets the same answer twice', async () => {
    const names = ['dim', 'tilt'] as const
    expect(await limitsOf(PLAIN_LOOK, names)).toEqual(await limitsOf(PLAIN_LOOK, names))
  }, 60_000)

  it('that is twice as large is read from twice as far', async () => {
    const [[near], [far]] = await Promise.all([
      limitsOf(PLAIN_LOOK, ['far'], 30),
      limitsOf(PLAIN_LOOK, ['far'], 60),
    ])
    expect((far ?? 0) / (near ?? 1)).toBeGreaterThan(1.8)
    expect((far ?? 0) / (near ?? 1)).toBeLessThan(2.2)
  }, 60_000)
})

describe('what a look costs is measured', () => {
  it('small dots stand less loss of ink, and are not read from as far', async () => {
    const dots: Look = { ...PLAIN_LOOK, modules: { shape: 'dot', size: 0.6 } }
    const [far, loss] = await limitsOf(dots, ['far', 'ink-loss'])
    const [plainFar, plainLoss] = await limitsOf(PLAIN_LOOK, ['far', 'ink-loss'])
    expect(far).toBeLessThan(plainFar ?? 0)
    expect(loss).toBeLessThan(plainLoss ?? 0)
  }, 60_000)

  it('pale ink needs more light', async () => {
    const [dark, pale] = [
      await limitsOf(inInk('#000000'), ['dim']),
      await limitsOf(inInk('#bbbbbb'), ['dim']),
    ]
    expect(pale[0]).toBeGreaterThan(dark[0] ?? 0)
  }, 60_000)

  it('what nobody can see is read in no conditions', async () => {
    expect(await limitsOf(inInk('#fefefe'), ['far', 'tilt'])).toEqual([null, null])
  }, 60_000)
})
