import type { Posting } from '../routing/index.ts'
import { isPassword } from '../workspace/index.ts'
import { passwordPage, TOO_MANY } from './askPages.ts'
import type { Attempts } from './attempts.ts'
import type { Rendered } from './pages.ts'
import { PASS_NAME, type Passes } from './passes.ts'

export interface PasswordParts {
  readonly passes: Passes
  readonly attempts: Attempts
}

const LONGEST = 200

/**
 * Looks at a password somebody gave: the right one is answered with the same short link and a pass in its
 * address, a wrong one with the page again. Attempts are limited per visitor and per code, whatever they are.
 */
export async function enterPassword({ passes, attempts }: PasswordParts, { codeId, passwordHash }: Posting, visitor: string, password: string, path: string, query: string): Promise<Rendered | { goOn: string }> {
  if (passwordHash === '') return { goOn: query === '' ? path : `${path}?${query}` }
  if (!attempts.take(codeId, visitor)) return passwordPage(TOO_MANY, 429)
  if (!(await isPassword(password.slice(0, LONGEST), passwordHash))) return passwordPage('That was not the password. Please try again.', 403)
  attempts.giveBack(codeId, visitor)
  const pass = `${PASS_NAME}=${passes.issue(codeId, passwordHash, Date.now())}`
  return { goOn: `${path}?${query === '' ? pass : `${query}&${pass}`}` }
}
