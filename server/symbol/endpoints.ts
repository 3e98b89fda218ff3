import type { Response } from 'express'
import { codesApi, contentOf, symbolFileName } from '@flimbo/core/codes'
import { encode, RasterTooLarge, sceneSvg, symbolScene, type Level, type Scene } from '@flimbo/core/symbol'
import { mount, wrongField, type Mounts } from '../api/index.ts'
import { tables, type CodeRow, type Database } from '../database/index.ts'
import type { Domains } from '../domains/index.ts'
import { scenePng } from './png.ts'

/** The endpoints of symbol, as `core`’s contract describes them. */
export function symbolEndpoints(
  mounts: Mounts,
  { database, domains }: { database: Database; domains: Domains },
): void {
  async function sceneOf(
    id: number,
    { level, mm }: { level?: Level | undefined; mm?: number | undefined },
  ): Promise<{ code: CodeRow; scene: Scene }> {
    const code = await database.read.findOneByOrFail(tables.codes, { id })
    const content = contentOf({ origin: domains.origin(code.domainId), slug: code.slug })
    const symbol = encode(content, level ?? code.level)
    return { code, scene: symbolScene(symbol, mm ?? code.sizeMm, code.name) }
  }

  function send(
    response: Response,
    code: CodeRow,
    extension: string,
    type: string,
    content: string | Buffer,
  ): void {
    response.set({
      'Cache-Control': 'no-cache',
      'Content-Disposition': `attachment; filename="${symbolFileName(code, extension)}"`,
    })
    response.type(type).send(content)
  }

  mount(mounts, codesApi.svg, async ({ params, query, response }) => {
    const { code, scene } = await sceneOf(params.id, query)
    send(response, code, 'svg', 'image/svg+xml', sceneSvg(scene))
  })

  mount(mounts, codesApi.png, async ({ params, query, response }) => {
    const { code, scene } = await sceneOf(params.id, query)
    try {
      send(response, code, 'png', 'image/png', await scenePng(scene, query.dpi))
    } catch (error) {
      if (error instanceof RasterTooLarge) throw wrongField('dpi', error.message)
      throw error
    }
  })
}
