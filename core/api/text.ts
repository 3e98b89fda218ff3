import { z } from 'zod'

const CONTROL = /[\u0000-\u001f\u007f-\u009f]/

/** Whether a text has C0 or C1 control characters, DEL included (Unicode general category Cc). */
export function hasControlCharacters(text: string): boolean {
  return CONTROL.test(text)
}

/**
 * One line of text a person enters: surrounding space is dropped, control characters are refused, and
 * its length is limited. `what` names it in the sentences ("a name").
 */
export function line(what: string, max: number) {
  return z
    .string({ error: `Give ${what}.` })
    .trim()
    .max(max, `Make ${what} no longer than ${String(max)} characters.`)
    .refine((text) => !hasControlCharacters(text), `Take line breaks and control characters out of ${what}.`)
}

/** Signs that show nothing: spaces, format characters, fillers of Hangul, the empty Braille pattern (Unicode, properties White_Space and Default_Ignorable_Code_Point). */
const INVISIBLE = /[\s\p{Z}\p{C}\p{Default_Ignorable_Code_Point}\u2800]/gu

/** The same, and it may not be empty, or seem so. */
export function requiredLine(what: string, max: number) {
  return line(what, max).refine((text) => text.replace(INVISIBLE, '').length > 0, `Give ${what}.`)
}
