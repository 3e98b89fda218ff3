import { decodeBytes, detectEncoding, UnreadableTable } from '@flimbo/core/plan'
import { useState } from 'react'

/** What is chosen from, as an `accept` attribute has it. */
export const TABLE_FILES = '.csv,.txt,.tsv,text/csv'

/**
 * A table that somebody chooses as a file.
 *
 * @param read makes of its text what is wanted; throws `UnreadableTable` where it is no table
 * @param bytesMax more are not read, and `tooLarge` says what to do
 */
export function useTableFile<T>(read: (text: string) => T, bytesMax: number, tooLarge: string) {
  const [table, setTable] = useState<T | null>(null)
  const [fault, setFault] = useState<string | null>(null)

  async function take(file: File | undefined): Promise<void> {
    if (!file) return
    setTable(null)
    if (file.size > bytesMax) {
      setFault(tooLarge)
      return
    }
    const bytes = new Uint8Array(await file.arrayBuffer())
    try {
      setTable(read(decodeBytes(bytes, detectEncoding(bytes))))
      setFault(null)
    } catch (error) {
      setFault(error instanceof UnreadableTable ? error.message : 'The file could not be read as a table.')
    }
  }
  return { table, fault, take }
}
