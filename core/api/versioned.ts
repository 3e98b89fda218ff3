import { z } from 'zod'

/** A value with the version that a change of it must start from. */
export const versioned = <T extends z.ZodType>(value: T) => z.object({ value, version: z.int() })

/** A change of such a value. */
export const versionedChange = <T extends z.ZodType>(value: T) => z.strictObject({ value, version: z.int() })
