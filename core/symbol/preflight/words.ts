import type { ArtworkGrades } from '../artwork.ts'
import type { Choice, ChoiceCost } from './costs.ts'
import type { ConditionName } from './conditions.ts'
import type { Limit } from './limits.ts'
import type { Reason } from './proof.ts'

/** A distance as people say it: "6 cm", "1.4 m". */
export function distanceWords(mm: number): string {
  if (mm < 1000) return `${String(Math.round(mm / 10))} cm`
  const metres = mm / 1000
  return `${metres < 10 ? String(Math.round(metres * 10) / 10) : String(Math.round(metres))} m`
}

const percent = (share: number) =>
  `${share < 0.1 ? String(Math.round(share * 1000) / 10) : String(Math.round(share * 100))} %`

/** What was found of how far a symbol may go, as one sentence: "Reads from 6 cm to 53 cm, up to 67° tilt, down to 5 % light." */
export function limitsSentence(limits: readonly Limit[]): string {
  const found = new Map(limits.map((limit) => [limit.name, limit]))
  const [near, far] = [found.get('near')?.value ?? null, found.get('far')?.value ?? null]
  if (near === null || far === null) return 'It is not read even in good conditions.'
  const tilt = found.get('tilt')?.value ?? null
  const dim = found.get('dim')?.value ?? null
  const parts = [
    `Reads from ${distanceWords(near)} to ${distanceWords(far)}`,
    ...(tilt === null ? [] : [`up to ${String(Math.round(tilt))}° tilt`]),
    ...(dim === null ? [] : [`down to ${percent(dim)} light`]),
  ]
  return `${parts.join(', ')}.`
}

const MEASURES: Readonly<Record<keyof Omit<ArtworkGrades, 'overall' | 'blocks'>, string>> = {
  contrast: 'the contrast of ink and ground',
  modulation: 'how evenly modules stand out',
  fixedPattern: 'the fixed patterns',
  axial: 'the proportions of modules',
  correction: 'the error correction that is left',
  decode: 'whether it can be decoded',
}

const TOUCHY: Readonly<Partial<Record<ConditionName, (value: number) => string>>> = {
  tilt: (value) =>
    `It is read up to ${String(Math.round(value))}° tilt only, so people have to stand right before it.`,
  turn: (value) =>
    `It is read turned by ${String(Math.round(value))}° at most, and people hold phones as they like.`,
  dim: (value) => `It needs ${percent(value)} of a lit room’s light: in dim light phones will not read it.`,
  'ink-spread': (value) =>
    `It stands ${percent(value)} of a module of ink that runs: on rough paper gaps will close.`,
  'ink-loss': (value) =>
    `It stands ${percent(value)} of a module of ink that is missing: a thin print will break it up.`,
}

/** Why a piece is not ready, as a sentence. */
export function reasonSentence(reason: Reason): string {
  switch (reason.code) {
    case 'unread':
      return 'It is not read even in good conditions.'
    case 'no-correction':
      return `Block ${String(reason.block)} loses ${String(reason.lost)} codewords, and ${String(reason.correctable)} are the most it can lose.`
    case 'too-far':
      return `It reads from up to ${distanceWords(reason.readsM * 1000)}, and people will stand ${distanceWords(reason.viewingM * 1000)} away. Print it larger.`
    case 'low-grade':
      return `Grade ${reason.grade} for ${MEASURES[reason.measure]}.`
    case 'narrow-modules':
      return `A module is ${reason.moduleMm.toFixed(2)} mm wide, which cheap cameras and rough paper lose. Print it larger.`
    case 'touchy':
      return TOUCHY[reason.condition]?.(reason.value) ?? 'It stands little.'
  }
}

const CHOICE_WORDS: Readonly<Record<Choice, string>> = {
  logo: 'The logo',
  ink: 'The ink',
  ground: 'The ground',
  modules: 'The shape of the modules',
  finder: 'The look of the finder patterns',
  alignment: 'The shape of the alignment patterns',
}

/** What a choice costs, as a sentence: "The logo costs one grade, 0.4 m and 15°." */
export function costSentence({ choice, grades, metres, tiltDeg }: ChoiceCost): string {
  const parts = [
    ...(grades > 0 ? [grades === 1 ? 'one grade' : `${String(grades)} grades`] : []),
    ...(metres >= 0.005 ? [distanceWords(metres * 1000)] : []),
    ...(tiltDeg >= 0.5 ? [`${String(Math.round(tiltDeg))}°`] : []),
  ]
  const last = parts.pop()
  if (last === undefined) return `${CHOICE_WORDS[choice]} costs next to nothing.`
  return `${CHOICE_WORDS[choice]} costs ${[parts.join(', '), last].filter(Boolean).join(' and ')}.`
}

/** How much of a block's error correction is used up: "The worst block uses up 11 of the 28 codewords it can lose." */
export function correctionSentence({ blocks }: Pick<ArtworkGrades, 'blocks'>): string {
  const lost = Math.max(...blocks.map((block) => block.lost))
  if (lost === 0) return 'All of the error correction is left for paper and press.'
  const at = blocks.findIndex((block) => block.lost === lost)
  return `Block ${String(at + 1)} of ${String(blocks.length)} uses up ${String(lost)} of the ${String(blocks[at]?.correctable ?? 0)} codewords it can lose.`
}

const modules = (value: number) => `${value.toFixed(value < 0.1 ? 2 : 1)} of a module`
const wholePercent = (value: number) => `${String(Math.round(value * 100))} %`

/** What each condition is called, and its limit in words. */
const LIMIT_WORDS: Readonly<Record<ConditionName, readonly [name: string, said: (value: number) => string]>> =
  {
    near: ['As near as', distanceWords],
    far: ['As far as', distanceWords],
    tilt: ['Tilted by', (value) => `${String(Math.round(value))}°`],
    turn: ['Turned by', (value) => `${String(Math.round(value))}°`],
    defocus: ['Out of focus by', modules],
    motion: ['Moved by', modules],
    dim: ['In light of', percent],
    uneven: ['In shade that takes', wholePercent],
    glare: ['With glare of', (value) => `${value.toFixed(1)} times the paper`],
    'ink-spread': ['Ink that runs by', modules],
    'ink-loss': ['Ink that is missing by', modules],
    bend: ['Bent about', (value) => `a radius of ${distanceWords(value)}`],
    torn: ['A corner torn by', wholePercent],
    scratches: ['Scratched', (value) => `${String(Math.round(value))} times`],
  }

/** How far one condition may go, as a name and a value: "Tilted by", "67°"; "or more" where nothing harder was tried. */
export function limitWords({ name, value, isEnd }: Limit): { readonly name: string; readonly value: string } {
  const [called, said] = LIMIT_WORDS[name]
  if (value === null) return { name: called, value: 'not read' }
  const more = isEnd && name !== 'near' && name !== 'turn' ? ' or more' : ''
  return { name: called, value: `${said(value)}${more}` }
}
