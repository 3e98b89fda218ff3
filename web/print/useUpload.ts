import { filesApi, type StoredFile } from '@flimbo/core/files'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { sentenceOf, upload } from '../api/index.ts'

/** Uploads a file. @returns it as it is kept, or why it was not taken */
export function useUpload() {
  const queries = useQueryClient()
  const [isUploading, setUploading] = useState(false)
  const [fault, setFault] = useState<string | null>(null)
  async function send(file: File | undefined): Promise<StoredFile | null> {
    if (!file) return null
    setUploading(true)
    setFault(null)
    try {
      const stored = await upload(
        filesApi.upload,
        { query: { name: file.name.slice(0, 200) || 'file' } },
        file,
      )
      await queries.invalidateQueries({ queryKey: [filesApi.list.path] })
      return stored
    } catch (error) {
      setFault(sentenceOf(error, 'The file could not be uploaded. Try again.'))
      return null
    } finally {
      setUploading(false)
    }
  }
  return { send, isUploading, fault }
}
