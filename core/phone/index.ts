export { phoneAnswer, phoneApi, phoneScan } from './contract.ts'
export type { PhoneAnswer, PhoneChoices } from './contract.ts'
