import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import express, { type Router } from 'express'
import staticGzip from 'express-static-gzip'

/** Stands in the built page wherever a nonce belongs; Vite puts it there. */
const NONCE_MARK = /__FLIMBO_NONCE__/g
const YEAR_MS = 365 * 24 * 60 * 60 * 1000

/**
 * Serves the built application; every path that is no file is the application's own. Files lie there compressed
 * beside themselves (RFC 7932, RFC 1952), and are sent so to whoever takes them.
 */
export function application(directory: string): Router {
  const router = express.Router()
  const index = join(directory, 'index.html')
  const page = existsSync(index) ? readFileSync(index, 'utf8') : null
  const compressed = { enableBrotli: true, orderPreference: ['br', 'gzip'], index: false as const }
  if (page !== null) {
    router.use(
      '/assets',
      staticGzip(join(directory, 'assets'), {
        ...compressed,
        serveStatic: { immutable: true, maxAge: YEAR_MS, dotfiles: 'ignore', redirect: false },
      }),
    )
    // What is not among them is not there: no page of the application lies under this path.
    router.use('/assets', (_request, response) => {
      response.removeHeader('Content-Encoding')
      response.status(404).type('text').send('There is no such file.\n')
    })
  }
  router.get('/index.html', (_request, response) => {
    response.redirect(308, '/')
  })
  if (page !== null)
    router.use(staticGzip(directory, { ...compressed, serveStatic: { dotfiles: 'ignore', redirect: false } }))
  router.get('/{*path}', (_request, response) => {
    response.removeHeader('Content-Encoding')
    if (page === null) {
      response.status(503).type('text').send('The application is not built yet. Run: npm run build\n')
      return
    }
    const { nonce } = response.locals as { nonce: string }
    response.set('Cache-Control', 'no-store').type('html').send(page.replace(NONCE_MARK, nonce))
  })
  return router
}
