import type { DoorNews, Forget, Ports, StandInQuestion } from '../line/index.ts'

/** The processes beside the supervisor. */
export const PARTS = ['door', 'office', 'standIns'] as const
export type Part = (typeof PARTS)[number]

/** What the supervisor tells a process, once that has said `hello`. The first is always `begin`. */
export type Down =
  | { readonly kind: 'begin'; readonly secret: string; readonly ports: Ports }
  | { readonly kind: 'ping'; readonly n: number }
  | { readonly kind: 'stop' }
  | { readonly kind: 'ports'; readonly ports: Ports }
  /** To front doors, each answered by `forgot`. */
  | { readonly kind: 'forget'; readonly id: number; readonly what: Forget }
  /** To the office. */
  | { readonly kind: 'news'; readonly news: DoorNews }
  | { readonly kind: 'forgotten'; readonly id: number }
  | { readonly kind: 'answer'; readonly id: number; readonly value: unknown }
  | { readonly kind: 'no-answer'; readonly id: number }
  /** To the stand-ins, answered by `answer`. */
  | { readonly kind: 'question'; readonly id: number; readonly question: StandInQuestion }

/** What a process tells the supervisor. */
export type Up =
  /** It listens to what it is told; whatever was sent before may be lost. */
  | { readonly kind: 'hello' }
  | { readonly kind: 'ready'; readonly ports: Partial<Ports> }
  /** It cannot start; the sentence says what to do. */
  | { readonly kind: 'failed'; readonly sentence: string }
  | { readonly kind: 'pong'; readonly n: number }
  | { readonly kind: 'forgot'; readonly id: number }
  | { readonly kind: 'news'; readonly news: DoorNews }
  | { readonly kind: 'forget'; readonly id: number; readonly what: Forget }
  | { readonly kind: 'question'; readonly id: number; readonly question: StandInQuestion }
  | { readonly kind: 'answer'; readonly id: number; readonly value: unknown }
