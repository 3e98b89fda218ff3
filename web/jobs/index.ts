export { useFile } from './files.ts'
export { JobsScreen } from './JobsScreen.tsx'
export { OwnJobs } from './OwnJobs.tsx'
