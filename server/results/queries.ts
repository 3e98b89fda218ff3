// The reading thread's door to this room: prepared SQL alone, nothing of the office.
export { codeLists } from './codeLists.ts'
export { results } from './compute.ts'
export { effect } from './effect.ts'
export { exits } from './exits.ts'
export { recent } from './recent.ts'
export { readScans } from './rows.ts'
export { tagRows } from './tagRows.ts'
export { tallies } from './tallies.ts'
