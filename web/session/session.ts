import { createContext, use } from 'react'
import type { Session } from '@flimbo/core/workspace'

export type SignedIn = Extract<Session, { state: 'signed-in' }>

export const SessionContext = createContext<SignedIn | null>(null)

/** Who is signed in and where; only below the sign-in. */
export function useSession(): SignedIn {
  const session = use(SessionContext)
  if (!session) throw new Error('Nobody is signed in')
  return session
}

/** Every zone this browser knows, by its IANA name. */
export const ZONES: readonly string[] = Intl.supportedValuesOf('timeZone')
export const OWN_ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone
