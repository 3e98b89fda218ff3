import { open } from 'node:fs/promises'

/** The first bytes of a file, at most so many. */
export async function headOf(file: string, bytesMax: number): Promise<Buffer> {
  const handle = await open(file)
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(bytesMax), 0, bytesMax, 0)
    return buffer.subarray(0, bytesRead)
  } finally {
    await handle.close()
  }
}
