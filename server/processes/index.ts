export { listen, shut } from './listening.ts'
export { openDoor } from './openDoor.ts'
export type { OpenDoor } from './openDoor.ts'
export { openOffice } from './openOffice.ts'
