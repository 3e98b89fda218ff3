export {
  MAIL_KINDS,
  MAIL_KIND_NAMES,
  MAIL_STATES,
  MAIL_STATE_NAMES,
  mailApi,
  STAND_IN_MANNERS,
} from './contract.ts'
export type { Mail, MailKind, MailSetup, MailState, ReceivedMail, StandInManner } from './contract.ts'
export { writeMail } from './writeMail.ts'
export type { MailContent, WrittenMail } from './writeMail.ts'
