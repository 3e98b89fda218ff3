export { tables } from './entities/index.ts'
export type {
  CampaignRow,
  CheckRow,
  ClientRow,
  CodeRow,
  DayNoteRow,
  DomainRow,
  ErasureRow,
  FileRow,
  GoalRow,
  HouseStyleRow,
  JobRow,
  LeadNoteRow,
  LeadRow,
  MailRow,
  OutboxRow,
  PageRevisionRow,
  PageRow,
  PageStyleRow,
  PersonRow,
  ProofRow,
  QuestionRow,
  ReleaseRow,
  ReportLinkRow,
  ReportMailingRow,
  ReportRow,
  RevisionRow,
  LaneSetRow,
  RouteRow,
  SessionRow,
  SettingRow,
  ShortLinkRow,
  Snapshot,
  StaticCodeRow,
  UnusualRow,
  ViewRow,
  WatchRow,
  WorkspaceRow,
} from './entities/index.ts'
export { insertedId, reserveIds, reserveInTurn } from './ids.ts'
export { keepNamed } from './keepNamed.ts'
export { migrate, openDatabase, openReadOnly } from './open.ts'
export type { Database, ReadOnly } from './open.ts'
export { ONE_TURN } from './writing.ts'
export type { Turns } from './writing.ts'
export { insertMany, updateMany } from './bulk.ts'
export { findAmong } from './among.ts'
export { peopleNames } from './peopleNames.ts'
