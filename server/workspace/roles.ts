import { Refusal } from '../api/index.ts'
import type { SignedIn } from './sessions.ts'

/** Refuses whoever is no admin. @param what only an admin may do, such as `change the visit tags` */
export function adminsOnly({ person }: Pick<SignedIn, 'person'>, what: string): void {
  if (person.role !== 'admin') throw new Refusal('forbidden', `Only an admin may ${what}.`)
}
