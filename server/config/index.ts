export { ConfigError, readConfig } from './config.ts'
export type { Config, MailServer } from './config.ts'
