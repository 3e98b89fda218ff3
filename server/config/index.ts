export { ConfigError, readConfig } from './config.ts'
export type { Config } from './config.ts'
