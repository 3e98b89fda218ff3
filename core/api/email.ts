import { z } from 'zod'

/** A mail address as somebody types it, in small letters (RFC 5321: at most 254 characters). */
export const email = z
  .string({ error: 'Give an e-mail address.' })
  .trim()
  .toLowerCase()
  .max(254, 'That is longer than an e-mail address can be.')
  .pipe(z.email('Give a whole e-mail address, such as you@example.com.'))
