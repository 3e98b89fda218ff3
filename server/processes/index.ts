export { listen, closeServer } from './listening.ts'
export { openDoor } from './openDoor.ts'
export type { OpenDoor } from './openDoor.ts'
export { openOffice } from './openOffice.ts'
