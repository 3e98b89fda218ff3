import type { Look } from '../symbol/index.ts'

/** The uploaded files that a look needs, by their SHA-256, each once. */
export function filesOf({ logo, ground }: Pick<Look, 'logo' | 'ground'>): string[] {
  const files = [logo?.file, ground?.kind === 'picture' ? ground.file : undefined]
  return [...new Set(files.filter((file) => file !== undefined))]
}
