import { DEFAULT_VIEW } from '@flimbo/core/results'
import { reportContent, type ReportContent } from '@flimbo/core/reports'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  addBlock,
  blockTitle,
  emptyReport,
  moveBlock,
  NEW_QUESTION,
  questionBlock,
  removeBlock,
  wordsBlock,
} from './editReport.ts'
import { addressesIn } from './MailingForm.tsx'
import { reportPath, reportsPath } from './paths.ts'

const empty = emptyReport({ clientId: null, campaignId: 3 })
const keys = ({ blocks }: ReportContent) => blocks.map(({ key }) => key).join(' ')
/** A report of three parts. */
function three(): ReportContent {
  let content: ReportContent = { ...empty, name: 'July' }
  content = addBlock(content, questionBlock(content, NEW_QUESTION), null)
  content = addBlock(content, wordsBlock(content), null)
  return addBlock(content, questionBlock(content, { view: { ...DEFAULT_VIEW, by: ['piece'] } }), null)
}

describe('a report while it is written', () => {
  it('can be saved whatever is done with its parts, and loses none', () => {
    const step = fc.oneof(
      fc.constant('question' as const),
      fc.constant('words' as const),
      fc.tuple(fc.nat(20), fc.constantFrom(-1 as const, 1 as const)),
      fc.nat(20),
    )
    fc.assert(
      fc.property(fc.array(step, { maxLength: 25 }), (steps) => {
        let content: ReportContent = { ...empty, name: 'July' }
        for (const each of steps) {
          const before = content.blocks.length
          if (each === 'question') content = addBlock(content, questionBlock(content, NEW_QUESTION), null)
          else if (each === 'words')
            content = addBlock(content, wordsBlock(content), keys(content).slice(0, 2))
          else if (typeof each === 'number') content = removeBlock(content, content.blocks[each]?.key ?? '')
          else {
            content = moveBlock(content, content.blocks[each[0]]?.key ?? '', each[1])
            expect(content.blocks.length).toBe(before)
          }
        }
        const questions = content.blocks.filter(({ kind }) => kind === 'question').length
        expect(reportContent.safeParse(content).success).toBe(questions <= 24)
      }),
    )
  })

  it('has new parts after the chosen one, and moves them no further than its ends', () => {
    const content = three()
    expect(keys(content)).toBe('q1 w2 q3')
    expect(keys(addBlock(content, wordsBlock(content), 'q1'))).toBe('q1 w4 w2 q3')
    expect(keys(moveBlock(content, 'q3', -1))).toBe('q1 q3 w2')
    expect(moveBlock(content, 'q1', -1)).toBe(content)
    expect(moveBlock(content, 'q3', 1)).toBe(content)
    expect(moveBlock(content, 'gone', 1)).toBe(content)
  })

  it('calls its parts by what they say or ask', () => {
    const [question, words, byPiece] = three().blocks
    if (!question || !words || !byPiece) throw new Error('There are three')
    expect([blockTitle(question), blockTitle(words), blockTitle(byPiece)]).toEqual([
      'Scans',
      'Empty text',
      'Scans by piece',
    ])
    expect(
      blockTitle({
        ...wordsBlock(empty),
        text: [{ kind: 'paragraph', runs: [{ text: 'Hello.' }] }],
      } as never),
    ).toBe('Hello.')
  })
})

describe('where reports are', () => {
  it('is in their campaign, where they are of one', () => {
    expect([reportsPath(null), reportPath(7, null)]).toEqual(['/reports', '/reports/7'])
    expect([reportsPath(3), reportPath(7, 3)]).toEqual(['/campaigns/3/reports', '/campaigns/3/reports/7'])
  })
})

describe('addresses as they are typed', () => {
  it.each([
    ['bo@gull.example', ['bo@gull.example']],
    [
      'bo@gull.example; cy@gull.example,\nda@gull.example  ',
      ['bo@gull.example', 'cy@gull.example', 'da@gull.example'],
    ],
    [' ,; ', []],
  ])('%j', (text, addresses) => {
    expect(addressesIn(text)).toEqual(addresses)
  })
})
