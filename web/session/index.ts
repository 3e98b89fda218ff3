export { OWN_ZONE, SessionContext, useSession, ZONES } from './session.ts'
export type { SignedIn } from './session.ts'
