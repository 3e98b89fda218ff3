export {
  client,
  person,
  ROLES,
  session,
  setUp,
  signIn,
  DEFAULT_SETTINGS,
  workspace,
  workspaceApi,
  workspaceSettings,
} from './contract.ts'
export { hasRight } from './rights.ts'
export { findApi } from './find.ts'
export type { Hit } from './find.ts'
export type { Client, Person, Role, Session, SetUp, Workspace, WorkspaceSettings } from './contract.ts'
