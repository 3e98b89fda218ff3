import type { Response } from 'express'
import { codesApi, printedLink, symbolFileName } from '@flimbo/core/codes'
import { encode, RasterTooLarge, symbolSvg, type Level } from '@flimbo/core/symbol'
import { missing, mount, wrongField, type Mounts } from '../api/index.ts'
import { tables, type CodeRow, type Database } from '../database/index.ts'
import type { Domains } from '../domains/index.ts'
import { scopeOwner } from '../results/index.ts'
import { symbolPng } from './png.ts'

export function symbolEndpoints(
  mounts: Mounts,
  { database, domains }: { database: Database; domains: Domains },
): void {
  async function symbolOf(workspaceId: number, id: number, level: Level | undefined) {
    const code = await database.read.findOneBy(tables.codes, { id })
    if (!code) throw missing('code')
    await scopeOwner(database, workspaceId, { codeId: id })
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

  mount(mounts, codesApi.svg, async ({ params, query, who, response }) => {
    const { code, symbol } = await symbolOf(who.workspace.id, params.id, query.level)
    send(response, code, 'svg', 'image/svg+xml', symbolSvg(symbol, query.mm ?? code.sizeMm, code.name))
  })

  mount(mounts, codesApi.png, async ({ params, query, who, response }) => {
    const { code, symbol } = await symbolOf(who.workspace.id, params.id, query.level)
    try {
      send(response, code, 'png', 'image/png', await symbolPng(symbol, query.mm ?? code.sizeMm, query.dpi))
    } catch (error) {
      if (error instanceof RasterTooLarge) throw wrongField('dpi', error.message)
      throw error
    }
  })
}
