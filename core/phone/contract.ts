import { z } from 'zod'
import { endpoint } from '../api/index.ts'

/** The phones a rehearsal can be made with, and where they can be. */
const choices = z.object({
  devices: z.array(z.object({ id: z.string(), label: z.string() })),
  places: z.array(z.object({ id: z.string(), label: z.string() })),
  languages: z.array(z.object({ id: z.string(), label: z.string() })),
  /** Whether scans may be sent that count: only where the stand-ins run. */
  mayCount: z.boolean(),
})
export type PhoneChoices = z.infer<typeof choices>

export const phoneScan = z.strictObject({
  /** What the camera read. */
  read: z
    .string({ error: 'Show the phone a symbol first.' })
    .min(1, 'Show the phone a symbol first.')
    .max(4500, 'No symbol holds that much.'),
  device: z.string(),
  place: z.string(),
  language: z.string(),
  count: z.boolean().default(false),
  /** What its owner says where a page asks whether visit tags may fire. */
  agrees: z.boolean().default(true),
})

const step = z.object({
  address: z.string(),
  /** HTTP status, or null where nothing was asked. */
  status: z.int().nullable(),
  says: z.string(),
})

export const phoneAnswer = z.object({
  steps: z.array(step),
  /** The page that came up in the end, and where a frame can show it; null where it lies outside. */
  landed: z.object({ address: z.string(), frame: z.string().nullable() }).nullable(),
  /** The page the front door itself showed last, as markup; null where the phone was sent on. */
  page: z.string().nullable(),
})
export type PhoneAnswer = z.infer<typeof phoneAnswer>

export const phoneApi = {
  choices: endpoint({
    method: 'GET',
    path: '/phone',
    standIn: true,
    room: 'phone',
    access: { right: 'view' },
    summary: 'The phones, places and languages of the phone stand-in',
    answer: choices,
  }),
  scan: endpoint({
    method: 'POST',
    path: '/phone/scans',
    standIn: true,
    room: 'phone',
    access: { right: 'edit' },
    summary: 'Ask the front door as a phone would that has read a symbol',
    body: phoneScan,
    answer: phoneAnswer,
  }),
}
