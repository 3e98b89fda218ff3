import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import express, { type Router } from 'express'

/** Stands in the built page wherever a nonce belongs; Vite puts it there. */
const NONCE_MARK = /__FLIMBO_NONCE__/g

/** Serves the built application; every path that is no file is the application's own. */
export function application(directory: string): Router {
  const router = express.Router()
  const index = join(directory, 'index.html')
  const page = existsSync(index) ? readFileSync(index, 'utf8') : null
  router.use('/assets', express.static(join(directory, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }))
  router.use(express.static(directory, { index: false }))
  router.get('/{*path}', (_request, response) => {
    if (page === null) {
      response.status(503).type('text').send('The application is not built yet. Run: npm run build\n')
      return
    }
    const { nonce } = response.locals as { nonce: string }
    response.set('Cache-Control', 'no-store').type('html').send(page.replace(NONCE_MARK, nonce))
  })
  return router
}
