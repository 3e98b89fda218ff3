import { z } from 'zod'

/** Counted scans (nothing kept apart is among them), how many were unique, and when the last came (UTC ms). */
export const tally = z.object({ scans: z.int().min(0), uniques: z.int().min(0), lastAt: z.int().nullable() })
export type Tally = z.infer<typeof tally>

export const NO_SCANS: Tally = { scans: 0, uniques: 0, lastAt: null }
