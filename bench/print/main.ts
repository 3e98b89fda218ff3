// npm run bench -- print: the proof of one symbol and a change while editing, against one bare encode and one bare
// decode of the same symbol, alternating in one run.
import { cpus } from 'node:os'
import { encodeQR } from 'qr'
import {
  encode,
  NEUTRAL_LOOKS,
  PLAIN_LOOK,
  proof,
  sceneColours,
  sceneEps,
  sceneSvg,
  styledScene,
  type Look,
  type ProofParts,
} from '@flimbo/core/symbol'
import { jsqr, zxing } from '../decoders.ts'
import { median } from '../figures.ts'

const ROUNDS = 9
const TEXT = 'HTTPS://GO.SALTMARSH.EXAMPLE/PIER'

const PARTS: ProofParts = {
  text: () => ({ width: 0, outlines: [] }),
  pictureSize: () => null,
  pictures: new Map(),
  decoders: [zxing, jsqr],
}

const symbol = encode(TEXT, 'M')
const sceneOf = (look: Look) => styledScene(symbol, look, 30, '', '', PARTS)
const changed = (i: number): Look => ({
  ...PLAIN_LOOK,
  modules: { shape: 'flowing', size: 0.8 + (i % 20) / 100 },
})
const frame = sceneColours(sceneOf(PLAIN_LOOK), 8)

const tasks: Readonly<Record<string, (round: number) => unknown>> = {
  'bare encode and bare decode': async () => {
    encodeQR(TEXT, 'raw', { ecc: 'medium' })
    await zxing({ width: frame.width, height: frame.height, data: new Uint8ClampedArray(frame.data) })
  },
  'a change while editing: scene and SVG': (round) => sceneSvg(sceneOf(changed(round))),
  'the scene as EPS, CMYK': (round) => sceneEps(sceneOf(changed(round)), 'cmyk'),
  'the proof of one symbol': () =>
    proof({ symbol, look: PLAIN_LOOK, mm: 30, link: '', viewingM: 0.3 }, PARTS),
  'the proof of one in dots': () =>
    proof(
      {
        symbol,
        look: NEUTRAL_LOOKS.find(({ name }) => name === 'Dots')?.look ?? PLAIN_LOOK,
        mm: 30,
        link: '',
        viewingM: 0.3,
      },
      PARTS,
    ),
}

const took = new Map<string, number[]>()
for (let round = 0; round < ROUNDS; round++)
  for (const [name, run] of Object.entries(tasks)) {
    const began = performance.now()
    await run(round)
    took.set(name, [...(took.get(name) ?? []), performance.now() - began])
  }

const [cpu] = cpus()
console.log(
  `${String(cpus().length)} cores (${cpu?.model ?? '?'}), Node.js ${process.version}; ${String(ROUNDS)} rounds, alternating\n`,
)
const bare = median(took.get('bare encode and bare decode') ?? [])
for (const [name, each] of took)
  console.log(
    `${name.padEnd(40)} ${median(each).toFixed(1).padStart(8)} ms   first ${(each[0] ?? 0).toFixed(1)} ms   ${(median(each) / bare).toFixed(1)} times bare`,
  )
console.log('\nWanted: a change under 16 ms, a proof under 1 s.')
