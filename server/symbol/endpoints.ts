import type { Response } from 'express'
import { codesApi, printedLink, symbolFileName } from '@flimbo/core/codes'
import { encode, RasterTooLarge, symbolSvg, type Level } from '@flimbo/core/symbol'
import { mount, wrongField, type Mounts } from '../api/index.ts'
import { tables, type CodeRow, type Database } from '../database/index.ts'
import type { Domains } from '../domains/index.ts'
import { symbolPng } from './png.ts'

export function symbolEndpoints(
  mounts: Mounts,
  { database, domains }: { database: Database; domains: Domains },
): void {
  async function symbolOf(id: number, level: Level | undefined) {
    const code = await database.read.findOneByOrFail(tables.codes, { id })
    return {
      code,
      symbol: encode(printedLink(domains.origin(code.domainId), code.slug), level ?? code.level),
    }
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
    const { code, symbol } = await symbolOf(params.id, query.level)
    send(response, code, 'svg', 'image/svg+xml', symbolSvg(symbol, query.mm ?? code.sizeMm, code.name))
  })

  mount(mounts, codesApi.png, async ({ params, query, response }) => {
    const { code, symbol } = await symbolOf(params.id, query.level)
    try {
      send(response, code, 'png', 'image/png', await symbolPng(symbol, query.mm ?? code.sizeMm, query.dpi))
    } catch (error) {
      if (error instanceof RasterTooLarge) throw wrongField('dpi', error.message)
      throw error
    }
  })
}
