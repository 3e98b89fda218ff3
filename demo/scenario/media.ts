/** A sandbank with seals before the sea, drawn for the sample company. */
export const SEALS_DRAWING = `<svg xmlns="http://www.w3.org/2000/svg" width="1600" height="1000" viewBox="0 0 1600 1000">
<defs><linearGradient id="sky" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#f6e3c1"/><stop offset="1" stop-color="#f2f0e6"/></linearGradient>
<linearGradient id="sea" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#3e8fb5"/><stop offset="1" stop-color="#0c5a66"/></linearGradient></defs>
<rect width="1600" height="1000" fill="url(#sky)"/><circle cx="1210" cy="250" r="92" fill="#f0b24a"/>
<rect y="430" width="1600" height="570" fill="url(#sea)"/>
<path d="M0 640q220-90 520-70t520 20 560-40v450H0z" fill="#d9c08d"/><path d="M0 720q300-60 700-30t900-30v340H0z" fill="#c9ab72"/>
<g fill="#4a4f55"><path d="M300 690q40-80 150-70t190 60q60-6 70 20-30 26-90 14-120 40-250 16-60-6-70-40z"/><circle cx="330" cy="656" r="40"/>
<path d="M820 740q30-70 130-64t170 56q54-4 62 18-26 22-78 12-110 36-220 14-54-6-64-36z"/><circle cx="846" cy="708" r="34"/>
<path d="M1200 660q24-56 104-50t136 44q44-4 50 14-22 18-62 10-88 28-176 10-44-4-52-28z"/><circle cx="1222" cy="634" r="28"/></g>
<g fill="#1f2a30"><circle cx="316" cy="648" r="5"/><circle cx="344" cy="648" r="5"/><circle cx="834" cy="702" r="4"/><circle cx="858" cy="702" r="4"/></g>
</svg>
`

const RATE = 11_025
const SECONDS = 6
const HEAD = 44

/** Waves on a beach: noise that comes and goes, as a WAV file (RIFF, PCM of 8 bits). The same each time. */
export function wavesSound(): Buffer {
  const count = RATE * SECONDS
  const file = Buffer.alloc(HEAD + count)
  file.write('RIFF', 0)
  file.writeUInt32LE(HEAD - 8 + count, 4)
  file.write('WAVEfmt ', 8)
  file.writeUInt32LE(16, 16)
  file.writeUInt16LE(1, 20)
  file.writeUInt16LE(1, 22)
  file.writeUInt32LE(RATE, 24)
  file.writeUInt32LE(RATE, 28)
  file.writeUInt16LE(1, 32)
  file.writeUInt16LE(8, 34)
  file.write('data', 36)
  file.writeUInt32LE(count, 40)
  let seed = 12_345
  let soft = 0
  for (let i = 0; i < count; i++) {
    seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648
    soft += (seed / 2_147_483_648 - 0.5 - soft) * 0.3
    const wave = 0.25 + 0.75 * Math.sin((Math.PI * i) / count) ** 2
    file[HEAD + i] = 128 + Math.round(soft * wave * 220)
  }
  return file
}
