export { pauseAfter } from './backoff.ts'
export { canCancel, isActive, job, JOB_KINDS, JOB_STATES, jobsApi } from './contract.ts'
export type { Job, JobKind, JobState } from './contract.ts'
