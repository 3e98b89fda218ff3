import { Unzip, UnzipInflate } from 'fflate'

/** So much may come out of a workbook: far more than twenty thousand lines need. */
export const UNPACKED_MAX = 150 << 20
const PIECE = 1 << 16

/** There is more in a ZIP file than may come out of one. */
class TooMuch extends Error {
  override readonly name = 'TooMuch'
}

/**
 * Whether a ZIP file unpacks into more than is allowed. First the sizes its directory tells are summed, then it is
 * unpacked in small pieces that are thrown away, and given up as soon as more comes out: what it says of itself may
 * be a lie. What is no ZIP file is not too large; reading it will say what it is.
 */
export function unpacksIntoTooMuch(bytes: Uint8Array, max = UNPACKED_MAX): boolean {
  if (toldSize(bytes) > max) return true
  let unpacked = 0
  const unzip = new Unzip((file) => {
    file.ondata = (error, part) => {
      if (error) throw error
      unpacked += part.length
      if (unpacked > max) throw new TooMuch()
    }
    file.start()
  })
  unzip.register(UnzipInflate)
  try {
    for (let i = 0; i < bytes.length; i += PIECE)
      unzip.push(bytes.subarray(i, i + PIECE), i + PIECE >= bytes.length)
  } catch (error) {
    return error instanceof TooMuch
  }
  return false
}

const END = 0x06054b50
const ENTRY = 0x02014b50
const END_BYTES = 22
const ENTRY_BYTES = 46
const COMMENT_MAX = 65_535

/** The sizes of all files as the central directory has them (PKWARE APPNOTE, sections 4.3.12 and 4.3.16); 0 where there is none. */
function toldSize(bytes: Uint8Array): number {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  for (let at = bytes.length - END_BYTES; at >= Math.max(0, bytes.length - END_BYTES - COMMENT_MAX); at--) {
    if (view.getUint32(at, true) !== END) continue
    let [entry, size] = [view.getUint32(at + 16, true), 0]
    while (entry + ENTRY_BYTES <= at && view.getUint32(entry, true) === ENTRY) {
      size += view.getUint32(entry + 24, true)
      entry +=
        ENTRY_BYTES +
        view.getUint16(entry + 28, true) +
        view.getUint16(entry + 30, true) +
        view.getUint16(entry + 32, true)
    }
    return size
  }
  return 0
}
