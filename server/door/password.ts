import type { Voice } from './voice.ts'
import type { Posting } from '../routing/index.ts'
import { isPassword } from '../workspace/index.ts'
import { passwordPage, waitSentence } from './askPages.ts'
import type { Attempts } from './attempts.ts'
import { ownWords, type Rendered } from './pages.ts'
import { PASS_NAME, type Passes } from './passes.ts'

export interface PasswordParts {
  readonly passes: Passes
  readonly attempts: Attempts
}

/** A password somebody gave, and what it was given for. */
export interface Entered {
  readonly password: string
  readonly address: string
  /** The scan that was asked for it, and the seal that says so. */
  readonly scan: string
  readonly asked: string
  readonly path: string
  readonly query: string
  readonly spoken: Voice
}

const LONGEST = 200

/**
 * Looks at a password somebody gave: the right one is answered with the same short link and a pass in its
 * address, a wrong one with the page again. Whoever was wrong often has to wait ever longer; nobody is locked out.
 */
export async function enterPassword(
  { passes, attempts }: PasswordParts,
  { routeId, codeId, passwordHash }: Posting,
  entered: Entered,
): Promise<Rendered | { goOn: string }> {
  const { password, address, scan, asked, path, query, spoken } = entered
  if (passwordHash === '') return { goOn: query === '' ? path : `${path}?${query}` }
  const wait = attempts.take(routeId, address, Date.now())
  if (wait > 0) return passwordPage(asked, spoken, waitSentence(wait, spoken), 429)
  const isRight = await attempts.inTurn(() => isPassword(password.slice(0, LONGEST), passwordHash))
  if (isRight === null) return ownWords('busy', spoken)
  if (!isRight) return passwordPage(asked, spoken, spoken.words.password.wrong, 403)
  attempts.giveBack(routeId, address)
  const pass = `${PASS_NAME}=${passes.issue(codeId, passwordHash, scan, Date.now())}`
  return { goOn: `${path}?${query === '' ? pass : `${query}&${pass}`}` }
}
