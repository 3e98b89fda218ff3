import { createHash, randomBytes } from 'node:crypto'
import type { CookieOptions, Request, Response } from 'express'
import { tables, type Database, type PersonRow, type WorkspaceRow } from '../database/index.ts'

export const SESSION_COOKIE = 'flimbo_session'
const SESSION_MS = 14 * 24 * 60 * 60_000

/** Whoever is signed in, and where. */
export interface SignedIn {
  readonly person: PersonRow
  readonly workspace: WorkspaceRow
  /** The digest of the session's token, and when it ends (UTC ms). */
  readonly session: string
  readonly expiresAt: number
}

/** Only a digest of a session's token is stored: a copy of the database opens no session. */
function digest(token: string): string {
  return createHash('sha256').update(token).digest('hex')
}

function tokenOf(request: Request): string | null {
  for (const part of (request.headers.cookie ?? '').split(';')) {
    const [name, value] = part.trim().split('=', 2)
    if (name === SESSION_COOKIE && value) return value
  }
  return null
}

/** Server-side sessions: a random token in a cookie, its digest and end in the database. */
export function sessions(
  database: Database,
  { secure, ended }: { secure: boolean; ended: (session: string) => void },
) {
  const cookie: CookieOptions = { httpOnly: true, sameSite: 'lax', secure, path: '/', maxAge: SESSION_MS }
  return {
    async begin(response: Response, personId: number): Promise<void> {
      const token = randomBytes(32).toString('base64url')
      const createdAt = Date.now()
      await database.writeAside(async (manager) => {
        await manager
          .createQueryBuilder()
          .delete()
          .from(tables.sessions)
          .where('expiresAt < :createdAt', { createdAt })
          .execute()
        await manager.insert(tables.sessions, {
          tokenHash: digest(token),
          personId,
          createdAt,
          expiresAt: createdAt + SESSION_MS,
        })
      })
      response.cookie(SESSION_COOKIE, token, cookie)
    },
    async end(request: Request, response: Response): Promise<void> {
      const token = tokenOf(request)
      if (token)
        await database.writeAside((manager) => manager.delete(tables.sessions, { tokenHash: digest(token) }))
      if (token) ended(digest(token))
      response.clearCookie(SESSION_COOKIE, { ...cookie, maxAge: undefined })
    },
    async whoAsks(request: Request): Promise<SignedIn | null> {
      const token = tokenOf(request)
      if (!token) return null
      const session = await database.read.findOneBy(tables.sessions, { tokenHash: digest(token) })
      if (!session || session.expiresAt < Date.now()) return null
      const person = await database.read.findOneByOrFail(tables.people, { id: session.personId })
      const workspace = await database.read.findOneByOrFail(tables.workspaces, { id: person.workspaceId })
      return { person, workspace, session: session.tokenHash, expiresAt: session.expiresAt }
    },
  }
}
export type Sessions = ReturnType<typeof sessions>
