import { describe, expect, it } from 'vitest'
import { jsqr, zxing } from '../../../bench/decoders.ts'
import { encode } from '../encode.ts'
import { PLAIN_LOOK, type Look } from '../look.ts'
import { NEUTRAL_LOOKS } from '../neutral.ts'
import { rectangle } from '../path.ts'
import { choiceCosts, CONDITIONS, gradesOf, proof, type Piece, type ProofParts } from './index.ts'

const LOGO = 'b'.repeat(64)
const PARTS: ProofParts = {
  text: (text) => ({ width: text.length * 0.6, outlines: [rectangle(0, -0.5, text.length * 0.6, 0.4)] }),
  pictureSize: () => ({ width: 8, height: 8 }),
  pictures: new Map([[LOGO, { width: 8, height: 8, data: new Uint8ClampedArray(256).fill(255) }]]),
  decoders: [zxing, jsqr],
}
const piece = (look: Look, more: Partial<Piece> = {}): Piece => ({
  symbol: encode('HTTPS://GO.SALTMARSH.EXAMPLE/PIER', 'M'),
  look,
  mm: 30,
  link: 'go.saltmarsh.example/pier',
  viewingM: 0.3,
  ...more,
})
const logo = (share: number): Look => ({
  ...PLAIN_LOOK,
  logo: {
    file: LOGO,
    share,
    margin: 0,
    plate: 'square',
    plateTint: { rgb: '#ffffff', cmyk: null },
    cleared: true,
  },
})
const inInk = (rgb: string): Look => ({ ...PLAIN_LOOK, ink: { kind: 'solid', tint: { rgb, cmyk: null } } })
/** Those that readiness hangs on. */
const DECISIVE = CONDITIONS.filter(({ name }) =>
  ['far', 'tilt', 'turn', 'dim', 'ink-spread', 'ink-loss'].includes(name),
)
const codes = async (each: Piece) => {
  const { readiness, reasons } = await proof(each, PARTS, DECISIVE)
  return [readiness, ...reasons.map(({ code }) => code)]
}

describe('a proof', () => {
  it.each(NEUTRAL_LOOKS.map(({ name, look }) => [name, look] as const))(
    'finds the looks that ship ready: %s',
    async (_, look) => {
      expect(await codes(piece(look))).toEqual(['ready'])
    },
    30_000,
  )

  it('says that a piece is not read from where people will stand, and how far it is', async () => {
    const { readiness, reasons } = await proof(piece(PLAIN_LOOK, { viewingM: 5 }), PARTS, DECISIVE)
    expect([readiness, reasons]).toEqual([
      'will-fail',
      [expect.objectContaining({ code: 'too-far', viewingM: 5 })],
    ])
    const [first] = reasons
    expect(first?.code === 'too-far' && first.readsM > 0.3 && first.readsM < 1).toBe(true)
    expect(await codes(piece(PLAIN_LOOK, { viewingM: 5, mm: 600 }))).toEqual(['ready'])
  }, 30_000)

  it('says that ink is too pale, and that nothing at all is to be seen', async () => {
    expect(await codes(piece(inInk('#d4d4d4')))).toContain('low-grade')
    expect(await codes(piece(inInk('#fdfdfd')))).toEqual(expect.arrayContaining(['will-fail', 'unread']))
  }, 30_000)

  it('says that modules are too narrow', async () => {
    expect(await codes(piece(PLAIN_LOOK, { mm: 12, viewingM: null }))).toEqual([
      'look-again',
      'narrow-modules',
    ])
  }, 30_000)

  it('says which block a logo leaves nothing of, exactly', async () => {
    const { reasons, grades } = await proof(piece(logo(0.4)), PARTS)
    const [block] = grades.blocks
    expect(block?.lost).toBeGreaterThan(block?.correctable ?? 0)
    expect(reasons).toContainEqual({ code: 'no-correction', block: 1, ...block })
    expect(reasons[0]?.code).toBe('unread')
  }, 30_000)
})

describe('a bigger logo', () => {
  it('never leaves more error correction, and never a better grade', () => {
    const shares = [0.05, 0.1, 0.15, 0.2, 0.25, 0.3, 0.35, 0.4]
    for (const level of ['L', 'M', 'Q', 'H'] as const) {
      const graded = shares.map((share) =>
        gradesOf(piece(logo(share), { symbol: encode('4711', level, 4) }), PARTS),
      )
      const left = graded.map(({ correction }) => correction.value)
      expect([...left].sort((a, b) => b - a)).toEqual(left)
      const grades = graded.map(({ overall }) => overall)
      expect([...grades].sort()).toEqual(grades)
    }
  })

  it('costs what it costs: the choice undone gives it back', async () => {
    const look: Look = { ...logo(0.2), modules: { shape: 'dot', size: 0.65 } }
    const each = piece(look)
    const costs = await choiceCosts(each, PARTS, await proof(each, PARTS, DECISIVE))
    expect(costs.map(({ choice }) => choice)).toEqual(expect.arrayContaining(['logo', 'modules']))
    const cost = (choice: string) => costs.find((one) => one.choice === choice)
    expect(cost('logo')?.grades).toBeGreaterThan(0)
    expect(cost('modules')?.metres).toBeGreaterThan(0)
    expect(
      await choiceCosts(piece(PLAIN_LOOK), PARTS, await proof(piece(PLAIN_LOOK), PARTS, DECISIVE)),
    ).toEqual([])
  }, 60_000)
})

describe('a surround', () => {
  it('changes nothing of what is measured of the symbol in it', () => {
    const framed = NEUTRAL_LOOKS.find(({ look }) => look.surround)?.look ?? PLAIN_LOOK
    const { surround } = framed
    const grades = (look: Look) => gradesOf(piece(look), PARTS)
    const captions = (['above', 'below'] as const).map((captionAt) =>
      grades({ ...framed, surround: surround && { ...surround, captionAt, caption: 'Times', padding: 2 } }),
    )
    for (const each of captions) expect(each).toEqual(grades(PLAIN_LOOK))
  })
})
