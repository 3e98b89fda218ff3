import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import express from 'express'
import { afterEach, describe, expect, it } from 'vitest'
import { http } from '../tests/running.ts'
import { application } from './static.ts'

let server: Server
let directory: string

async function serve(built: boolean): Promise<number> {
  directory = mkdtempSync(join(tmpdir(), 'flimbo-web-'))
  if (built) {
    mkdirSync(join(directory, 'assets'))
    writeFileSync(
      join(directory, 'index.html'),
      '<meta property="csp-nonce" nonce="__FLIMBO_NONCE__"><script nonce="__FLIMBO_NONCE__"></script>',
    )
    writeFileSync(join(directory, 'assets', 'index-abc.js'), 'export {}')
    writeFileSync(join(directory, 'assets', 'index-abc.js.br'), brotliCompressSync('export {}'))
    writeFileSync(join(directory, 'assets', 'index-abc.js.gz'), gzipSync('export {}'))
    writeFileSync(join(directory, 'mark.svg'), '<svg/>')
  }
  const app = express()
  let n = 0
  app.use((_request, response, next) => {
    response.locals.nonce = `nonce-${String(++n)}`
    next()
  })
  app.use(application(directory))
  server = createServer(app)
  await new Promise<void>((resolve) => {
    server.listen(0, '127.0.0.1', resolve)
  })
  return (server.address() as AddressInfo).port
}
afterEach(() => {
  server.close()
  rmSync(directory, { recursive: true, force: true })
})

describe('the built application', () => {
  it('is the same page at every address, each time with its own nonce', async () => {
    const port = await serve(true)
    for (const [i, path] of ['/', '/campaigns/1/plan', '/a/b/c?x=1'].entries()) {
      const { status, headers, body } = await http('GET', port, path)
      expect([status, headers['cache-control']]).toEqual([200, 'no-store'])
      expect(body).toBe(
        `<meta property="csp-nonce" nonce="nonce-${String(i + 1)}"><script nonce="nonce-${String(i + 1)}"></script>`,
      )
    }
  })

  it('lets browsers keep what carries its digest in its name, and nothing else for ever', async () => {
    const port = await serve(true)
    expect((await http('GET', port, '/assets/index-abc.js')).headers['cache-control']).toBe(
      'public, max-age=31536000, immutable',
    )
    expect((await http('GET', port, '/mark.svg')).headers['cache-control']).not.toContain('immutable')
    expect((await http('GET', port, '/assets/gone.js')).status).toBe(404)
    expect((await http('GET', port, '/assets/..%2f..%2fpackage.json')).status).not.toBe(200)
  })

  it('sends files compressed to whoever takes them so, and says by what that differs', async () => {
    const port = await serve(true)
    const encoding = async (accepted: string) => {
      const { status, headers } = await http(
        'GET',
        port,
        '/assets/index-abc.js',
        accepted === '' ? {} : { 'accept-encoding': accepted },
      )
      return [status, headers['content-encoding'], headers.vary, headers['content-type']]
    }
    expect(await encoding('gzip, deflate, br')).toEqual([
      200,
      'br',
      'Accept-Encoding',
      'text/javascript; charset=UTF-8',
    ])
    expect(await encoding('gzip')).toEqual([200, 'gzip', 'Accept-Encoding', 'text/javascript; charset=UTF-8'])
    expect((await encoding(''))[1]).toBeUndefined()
  })

  it('goes on when a file is taken away under it, as an upgrade in place does', async () => {
    const port = await serve(true)
    rmSync(join(directory, 'assets'), { recursive: true })
    for (const accepted of ['br', 'gzip', '']) {
      const { status, headers, body } = await http('GET', port, '/assets/index-abc.js', {
        'accept-encoding': accepted,
      })
      expect([status, headers['content-encoding'], body]).toEqual([
        404,
        undefined,
        'There is no such file.\n',
      ])
    }
    expect((await http('GET', port, '/')).status).toBe(200)
  })

  it('says what to do where it is not built', async () => {
    const { status, body } = await http('GET', await serve(false), '/')
    expect([status, body]).toEqual([503, 'The application is not built yet. Run: npm run build\n'])
  })
})
