import { filesApi } from '@flimbo/core/files'
import { filesOf } from '@flimbo/core/houseStyles'
import type { Look, LookParts } from '@flimbo/core/symbol'
import { useQueries } from '@tanstack/react-query'
import { useMemo } from 'react'
import { call } from '../api/index.ts'
import { useLetters } from './letters.ts'

/** What drawing looks needs: the letters, and how large the pictures in them are, and one `more`. */
export function useLookParts(looks: readonly Pick<Look, 'logo' | 'ground'>[], more?: string): LookParts {
  const { setText: text } = useLetters()
  const sums = [...new Set([...looks.flatMap(filesOf), ...(more === undefined ? [] : [more])])]
  const files = useQueries({
    queries: sums.map((sum) => ({
      queryKey: [filesApi.get.path, { params: { sum } }],
      queryFn: ({ signal }: { signal: AbortSignal }) => call(filesApi.get, { params: { sum } }, signal),
      staleTime: Infinity,
    })),
    combine: (answers) =>
      answers
        .map(({ data }) => (data ? `${data.sum} ${String(data.width)} ${String(data.height)}` : ''))
        .join(),
  })
  return useMemo(() => {
    const sizes = new Map(
      files
        .split(',')
        .filter(Boolean)
        .map((line) => {
          const [sum = '', width, height] = line.split(' ')
          return [sum, { width: Number(width), height: Number(height) }] as const
        }),
    )
    return { text, pictureSize: (file) => sizes.get(file) ?? null }
  }, [text, files])
}
