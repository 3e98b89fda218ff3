const EMAIL = /[^\s@,;:<>()]+(?:@|%40)[^\s@,;:<>()]+\.[a-z]{2,}/i
/** A plus or a leading zero, then at least seven digits; or nine digits and more. Grouping signs may stand between. */
const PHONE = /(?:(?:\+|\b00?)[1-9](?:[\s().\/-]{0,2}\d){6,14}|\b\d(?:[\s().\/-]{0,2}\d){8,14})(?!\d)/
const DAY = /\b(?:19|20)\d\d[-./]?(?:0[1-9]|1[0-2])[-./]?(?:0[1-9]|[12]\d|3[01])\b/g

export interface PersonalPart {
  readonly kind: 'e-mail address' | 'phone number'
  readonly text: string
}

/** An e-mail address or phone number in a tag; null where there is none. Days such as 2026-07-01 are not taken for one. */
export function personalPart(value: string): PersonalPart | null {
  const [email] = EMAIL.exec(value) ?? []
  if (email !== undefined) return { kind: 'e-mail address', text: email }
  const [phone] = PHONE.exec(value.replace(DAY, ' ')) ?? []
  return phone === undefined ? null : { kind: 'phone number', text: phone }
}

/** A value with the personal part, and whatever is left hanging around it, taken out. */
export function withoutPersonal(value: string, { text }: PersonalPart): string {
  return value
    .replace(text, ' ')
    .replace(/^[\s_.-]+|[\s_.-]+$/g, '')
    .replace(/\s+/g, ' ')
}
