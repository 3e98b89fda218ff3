/** Whether something answers scans: it does, it rests for a while, or it was deleted for good. */
export const STATES = ['live', 'paused', 'deleted'] as const
export type State = (typeof STATES)[number]
