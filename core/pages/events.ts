import { PLAYED_MARKS, STAY_SECONDS } from './draw/script.ts'

/** What can happen on a page. */
export const PAGE_EVENTS = [
  'opened',
  'link',
  'file',
  'contact',
  'event',
  'shared',
  'answered',
  'played',
  'stayed',
] as const
export type PageEventKind = (typeof PAGE_EVENTS)[number]

/** Something that happened on a page. */
export interface PageEvent {
  readonly kind: PageEventKind
  /** The part it happened at; empty where it was the page as a whole. */
  readonly part: string
  /** Which link of the part was followed, how much was played in per cent, or how long the page was seen in seconds. */
  readonly item: string
}

/** What figures of a piece count of what happened on pages: names of their columns. */
export const EVENT_COUNTS = ['opened', 'followed', 'taken', 'played', 'finished'] as const
export type EventCount = (typeof EVENT_COUNTS)[number]

const COUNTED_AS: Readonly<Record<EventCount, (event: Pick<PageEvent, 'kind' | 'item'>) => boolean>> = {
  opened: ({ kind }) => kind === 'opened',
  followed: ({ kind }) => kind === 'link',
  taken: ({ kind }) => kind === 'file' || kind === 'contact' || kind === 'event',
  played: ({ kind, item }) => kind === 'played' && item === '0',
  finished: ({ kind, item }) => kind === 'played' && item === '100',
}

/** Whether something that happened enters a figure of a piece. */
export const isCountedAs = (count: EventCount, event: Pick<PageEvent, 'kind' | 'item'>): boolean =>
  COUNTED_AS[count](event)

const PART = /^[a-z0-9]{1,16}$/
const ITEM = /^[A-Za-z0-9]{1,20}$/
/** More at once come from no page. */
const TOLD_MAX = 20

/** What scripts may tell; the rest is seen by the front door itself. */
const TOLD: Partial<Record<PageEventKind, (part: string, item: string) => boolean>> = {
  link: (part, item) => PART.test(part) && ITEM.test(item),
  shared: (part, item) => PART.test(part) && item === '',
  played: (part, item) => PART.test(part) && PLAYED_MARKS.some((mark) => String(mark) === item),
  stayed: (part, item) => part === '-' && STAY_SECONDS.some((seconds) => String(seconds) === item),
}

/** Reads what the script of a page tells, a line each; what it could not have told is left out. */
export function readTold(body: string): PageEvent[] {
  return body
    .split('\n')
    .slice(0, TOLD_MAX)
    .flatMap((line) => {
      const [kind = '', part = '', item = '', more] = line.split(' ')
      const found = PAGE_EVENTS.find((each) => each === kind)
      const isTold = found !== undefined && TOLD[found]?.(part, item) === true && more === undefined
      return isTold ? [{ kind: found, part: part === '-' ? '' : part, item }] : []
    })
}
