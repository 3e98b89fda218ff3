export { addressesOf, type Addresses } from './addresses.ts'
export { forgetCodes } from './forgetCodes.ts'
export type { DoorNews, Doors, Forget, Ports, ShortLink, StandInQuestion } from './orders.ts'
