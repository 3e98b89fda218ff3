import type { ReportBlock, ReportContent, ReportQuestion } from '@flimbo/core/reports'
import { questionTitle } from '@flimbo/core/charts'
import { plainText } from '@flimbo/core/fields'
import { DEFAULT_PRESET, DEFAULT_VIEW, type SavedValue } from '@flimbo/core/results'
import { freshKey } from '../ui/index.ts'

const keysOf = ({ blocks }: Pick<ReportContent, 'blocks'>) => blocks.map(({ key }) => key)

/** What a report holds that nobody has written in yet. */
export const emptyReport = (of: Pick<ReportContent, 'clientId' | 'campaignId'>): ReportContent => ({
  name: '',
  styleId: null,
  period: { preset: DEFAULT_PRESET },
  blocks: [],
  ...of,
})

/** A question as it is asked somewhere else, ready for a report. */
export function questionBlock(content: ReportContent, value: SavedValue): ReportQuestion {
  return {
    kind: 'question',
    key: freshKey('q', keysOf(content)),
    title: '',
    value,
    hasOwnPeriod: false,
    drawnAs: 'usual',
    hasPatterns: false,
    rows: 10,
  }
}

export const NEW_QUESTION: SavedValue = { view: { ...DEFAULT_VIEW, by: [], filters: {} } }

/** A report with one part more, after the chosen one or at its end. */
export function addBlock(content: ReportContent, block: ReportBlock, after: string | null): ReportContent {
  const at = content.blocks.findIndex(({ key }) => key === after)
  const to = at < 0 ? content.blocks.length : at + 1
  return { ...content, blocks: content.blocks.toSpliced(to, 0, block) }
}

/** Words that nobody has written yet. */
export const wordsBlock = (content: ReportContent): ReportBlock => ({
  kind: 'words',
  key: freshKey('w', keysOf(content)),
  text: [],
})

/** A report with one part changed. */
export const changeBlock = (content: ReportContent, block: ReportBlock): ReportContent => ({
  ...content,
  blocks: content.blocks.map((each) => (each.key === block.key ? block : each)),
})

/** A report without one of its parts. */
export const removeBlock = (content: ReportContent, key: string): ReportContent => ({
  ...content,
  blocks: content.blocks.filter((each) => each.key !== key),
})

/** A report with one part one place further up (-1) or down (1); as it is where there is no such place. */
export function moveBlock(content: ReportContent, key: string, by: -1 | 1): ReportContent {
  const at = content.blocks.findIndex((each) => each.key === key)
  const block = content.blocks[at]
  if (!block || at + by < 0 || at + by >= content.blocks.length) return content
  return { ...content, blocks: content.blocks.toSpliced(at, 1).toSpliced(at + by, 0, block) }
}

/** What a part is called in the list of parts. */
export function blockTitle(block: ReportBlock): string {
  if (block.kind === 'words') return plainText(block.text).slice(0, 80) || 'Empty text'
  const { what, by } = block.value.view
  return block.title === '' ? questionTitle(what, by) : block.title
}
