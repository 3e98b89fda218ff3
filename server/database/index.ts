export { tables } from './entities.ts'
export type {
  CampaignRow, ClientRow, CodeRow, PersonRow, RevisionRow, RouteRow, SessionRow, WorkspaceRow,
} from './entities.ts'
export { insertedId } from './ids.ts'
export { openDatabase, prepareWriter } from './open.ts'
export type { Database } from './open.ts'
export { startThread } from './thread.ts'
