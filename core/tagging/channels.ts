import { z } from 'zod'
import { line, requiredLine } from '../api/index.ts'

/** What a visit brings that a channel can be told by. */
export interface ChannelTags {
  readonly source: string
  readonly medium: string
  readonly campaign: string
}

export const CHANNEL_FIELDS = ['medium', 'source', 'campaign'] as const
export const CHANNEL_TESTS = ['is', 'contains', 'begins', 'ends'] as const

const condition = z.strictObject({
  field: z.enum(CHANNEL_FIELDS),
  test: z.enum(CHANNEL_TESTS),
  /** Any of these will do. */
  values: z
    .array(line('a value', 150).refine((value) => value !== '', 'Give at least one value.'))
    .min(1, 'Give at least one value.')
    .max(100),
})
export type ChannelCondition = z.infer<typeof condition>

/** One line of the table: a visit for which all conditions hold falls in the channel, unless an earlier line took it. */
export const channelRule = z.strictObject({
  channel: requiredLine('the channel a name', 60),
  when: z.array(condition).min(1, 'Give at least one condition.').max(5, 'Five conditions are the most.'),
})
export type ChannelRule = z.infer<typeof channelRule>

export const channelRules = z.array(channelRule).max(100, 'A hundred lines are the most.')

/** What analytics suites call a visit that no line took. */
export const UNASSIGNED = ''

const TESTS: Record<ChannelCondition['test'], (seen: string, value: string) => boolean> = {
  is: (seen, value) => seen === value,
  contains: (seen, value) => seen.includes(value),
  begins: (seen, value) => seen.startsWith(value),
  ends: (seen, value) => seen.endsWith(value),
}

function holds({ field, test, values }: ChannelCondition, tags: ChannelTags): boolean {
  const seen = tags[field].toLowerCase()
  return values.some((value) => TESTS[test](seen, value.toLowerCase()))
}

/** The channel a visit falls in: that of the first line whose conditions all hold, without regard to case; empty where none does. */
export function channelOf(tags: ChannelTags, rules: readonly ChannelRule[]): string {
  return rules.find(({ when }) => when.every((each) => holds(each, tags)))?.channel ?? UNASSIGNED
}

const TEST_WORDS = { is: 'is', contains: 'contains', begins: 'begins with', ends: 'ends with' } as const

/** A line as a sentence: "medium is print or poster, and source contains pier". */
export function channelSentence({ when }: ChannelRule): string {
  return when
    .map(({ field, test, values }) => `${field} ${TEST_WORDS[test]} ${values.join(' or ')}`)
    .join(', and ')
}

const by = (channel: string, ...media: string[]): ChannelRule => ({
  channel,
  when: [{ field: 'medium', test: 'is', values: media }],
})

/**
 * A table for the common media. Common practice, no published source: suites' own tables know no print,
 * so lines for it stand here first and have to be added there too.
 */
export const DEFAULT_CHANNELS: readonly ChannelRule[] = [
  by('Packaging', 'packaging', 'package', 'label', 'bag', 'cup', 'bottle', 'box'),
  by('Event', 'event', 'fair', 'booth', 'festival', 'ticket'),
  by('Offline screen', 'screen', 'tv', 'dooh', 'cinema', 'slide'),
  by(
    'Offline print',
    'print',
    'poster',
    'flyer',
    'leaflet',
    'brochure',
    'magazine',
    'newspaper',
    'mailing',
    'direct-mail',
    'card',
    'sign',
    'banner-print',
    'ooh',
    'billboard',
    'transit',
    'qr',
  ),
  by('Email', 'email', 'e-mail', 'newsletter'),
  by('Text message', 'sms', 'text', 'messenger'),
  by('Search ads', 'cpc', 'ppc', 'sea', 'paid-search'),
  by('Display ads', 'display', 'banner', 'cpm'),
  by('Social', 'social', 'social-media', 'social-network'),
  by('Video', 'video'),
  by('Audio', 'audio', 'radio', 'podcast'),
  by('Affiliate', 'affiliate'),
  by('Referral', 'referral', 'link'),
]
