export { tables } from './entities.ts'
export type {
  CampaignRow, CheckRow, ClientRow, CodeRow, DomainRow, HitRow, PageRow, PersonRow, RevisionRow, LaneSetRow, RouteRow, SessionRow, SettingRow, ShortLinkRow, Snapshot, ViewRow, WorkspaceRow,
} from './entities.ts'
export { insertedId } from './ids.ts'
export { openDatabase, prepareWriter } from './open.ts'
export type { Database } from './open.ts'
export { startThread } from './thread.ts'
export { insertMany, nextId, updateMany } from './bulk.ts'
export { findAmong } from './among.ts'
