export { CheckNow, CheckResult } from './CheckResult.tsx'
