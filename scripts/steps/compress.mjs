// Puts each built file beside itself compressed, so that the server need not do it for everybody anew.
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync, constants, gzipSync } from 'node:zlib'

const TEXT = /\.(js|css|svg|json|map)$/
const SMALL = 1024
/** Brotli's last two steps save a few per cent and take ten times as long: not for maps of megabytes. */
const LARGE = 1 << 20
const QUALITY = { usual: 10, large: 9 }

export function compressAll(directory) {
  for (const name of readdirSync(directory, { recursive: true })) {
    const file = join(directory, String(name))
    if (!TEXT.test(file) || !statSync(file).isFile() || statSync(file).size < SMALL) continue
    const bytes = readFileSync(file)
    writeFileSync(
      `${file}.br`,
      brotliCompressSync(bytes, {
        params: {
          [constants.BROTLI_PARAM_QUALITY]: bytes.length < LARGE ? QUALITY.usual : QUALITY.large,
          [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length,
        },
      }),
    )
    writeFileSync(`${file}.gz`, gzipSync(bytes, { level: constants.Z_BEST_COMPRESSION }))
  }
}
