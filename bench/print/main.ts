// npm run bench -- print: the proof of one symbol and a change while editing, against one bare encode and one bare
// decode of the same symbol, alternating in one run.
import { cpus } from 'node:os'
import { Writable } from 'node:stream'
import { encodeQR } from 'qr'
import { DEFAULT_SHEET } from '@flimbo/core/print'
import {
  DEFAULT_FINISH,
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
import { documents, draw, printFiles, type Listed, type PrintPiece } from '@flimbo/server/print'
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

/** Where files go while they are only timed: counted, and dropped. */
class Counted extends Writable {
  bytes = 0
  override _write(part: Uint8Array, _encoding: string, done: () => void) {
    this.bytes += part.length
    done()
  }
}
const PIECES = 1000
const piece = (n: number): PrintPiece => ({
  name: `Label ${String(n)}`,
  text: `${TEXT}-${String(n)}`,
  level: 'M',
  mm: 30,
  look: NEUTRAL_LOOKS[n % NEUTRAL_LOOKS.length]?.look ?? PLAIN_LOOK,
  placement: null,
  link: `go.saltmarsh.example/pier-${String(n)}`,
  files: {},
})
/** Asked for as rows out of a database are, one by one. */
// oxlint-disable-next-line require-await
async function* listed(): AsyncGenerator<Listed> {
  const fields = {
    place: '',
    size: 30,
    medium: '',
    source: '',
    term: '',
    reference: '',
    key: '',
    route: '',
    campaign: '',
  }
  for (let n = 0; n < PIECES; n++)
    yield { piece: piece(n), fields: { ...fields, name: 'Label', link: String(n) }, styleName: '' }
}
/** What a thread does, done here: a thread costs nothing that could be seen beside it. */
const pages = documents()
const thread = {
  call: (_name: 'draw', ...given: Parameters<typeof draw>) => draw(...given),
  close: () => Promise.resolve(),
}
// Files of pieces ask the thread for nothing but to draw.
const files = printFiles(thread as unknown as Parameters<typeof printFiles>[0])

async function zipOf(format: 'svg' | 'pdf'): Promise<number> {
  const out = new Counted()
  await files.zip(
    out,
    listed(),
    PIECES,
    { pattern: '{link}', finish: { ...DEFAULT_FINISH, format } },
    () => undefined,
  )
  return out.bytes
}
async function sheetOf(): Promise<number> {
  const layout = { ...DEFAULT_SHEET, columns: 10, rows: 20, cellWidthMm: 18, cellHeightMm: 13 }
  pages.begin('bench', 'Labels', 'cmyk')
  let bytes = 0
  for (let page = 0; page < PIECES / 200; page++) {
    const pieces = Array.from({ length: 200 }, (_each, i) => piece(page * 200 + i))
    const cells = pieces.map((_each, i) => ({ piece: i, captions: [] }))
    const made = await pages.page('bench', { kind: 'sheet', layout, pieces, cells })
    if (!made.ok) throw new Error(made.sentence)
    bytes += made.bytes.length
  }
  return bytes + (await pages.end('bench')).length
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

console.log('')
for (const [name, run] of [
  ['1,000 SVGs as ZIP', () => zipOf('svg')],
  ['1,000 PDFs as ZIP', () => zipOf('pdf')],
  ['1,000 labels on 5 sheets, one PDF', sheetOf],
] as const) {
  const began = performance.now()
  const bytes = await run()
  const ms = performance.now() - began
  console.log(
    `${name.padEnd(40)} ${(ms / 1000).toFixed(1).padStart(8)} s    ${(bytes / 1e6).toFixed(1)} MB   each ${(ms / PIECES / bare).toFixed(1)} times bare`,
  )
}
