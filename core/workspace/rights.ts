import type { Right } from '../api/index.ts'
import type { Role } from './contract.ts'

const RIGHTS: Readonly<Record<Role, readonly Right[]>> = {
  viewer: ['view'],
  editor: ['view', 'edit'],
  admin: ['view', 'edit', 'administer'],
}

/** Whether a role has a right: a viewer looks, an editor changes things too, an admin decides for the workspace. */
export function hasRight(role: Role, right: Right): boolean {
  return RIGHTS[role].includes(right)
}
