export { frontDoor } from './door.ts'
export type { DoorParts } from './door.ts'
export { rehearsalHeader, rehearsals } from './rehearsal.ts'
export type { Rehearsals } from './rehearsal.ts'
