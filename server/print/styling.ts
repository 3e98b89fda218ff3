import { isPictureType } from '@flimbo/core/files'
import { filesOf } from '@flimbo/core/houseStyles'
import { PLAIN_LOOK, type Look, type Placement } from '@flimbo/core/symbol'
import { findAmong, tables, type Database, type HouseStyleRow } from '../database/index.ts'
import type { FileLibrary } from '../files/index.ts'
import type { PictureFiles } from './pictures.ts'

/** How something is printed: its house style, null for the plain one, and the pictures that takes. */
export interface Styling {
  readonly style: HouseStyleRow | null
  readonly look: Look
  readonly files: PictureFiles
}

/** Something that is printed. */
interface Printed {
  readonly styleId: number | null
  readonly placement?: Placement | null
}

/** Finds how things of a workspace are printed. */
export function styler({ database: { read }, files }: { database: Database; files: FileLibrary }) {
  async function picturesOf(workspaceId: number, sums: readonly string[]): Promise<PictureFiles> {
    const rows = await findAmong(read, tables.files, 'sum', sums, { workspaceId })
    return Object.fromEntries(
      rows.flatMap(({ sum, type, width, height }) =>
        isPictureType(type) ? [[sum, { path: files.placeOf(sum), type, width, height }] as const] : [],
      ),
    )
  }

  return async (workspaceId: number, rows: readonly Printed[]): Promise<(row: Printed) => Styling> => {
    const ids = rows.flatMap(({ styleId }) => (styleId === null ? [] : [styleId]))
    const found = await findAmong(read, tables.houseStyles, 'id', ids, { workspaceId })
    const styles = new Map<number | null, HouseStyleRow>(found.map((style) => [style.id, style]))
    const pictures = await picturesOf(workspaceId, [
      ...found.flatMap(({ look }) => filesOf(look)),
      ...rows.flatMap(({ placement }) => placement?.file ?? []),
    ])
    return ({ styleId, placement }) => {
      const style = styles.get(styleId) ?? null
      const look = style?.look ?? PLAIN_LOOK
      return {
        style,
        look,
        files: Object.fromEntries(
          [...filesOf(look), ...(placement ? [placement.file] : [])].flatMap((sum) => {
            const file = pictures[sum]
            return file ? [[sum, file] as const] : []
          }),
        ),
      }
    }
  }
}
export type Styler = ReturnType<typeof styler>
