import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { answerRow as row } from '../tests/answerRow.ts'
import { tableCsv } from '../charts/index.ts'
import { html } from '../fields/index.ts'
import { DEFAULT_VIEW, NO_FIGURES, type AnswerRow } from '../results/index.ts'
import { contrastRatio, PLAIN_LOOK } from '../symbol/index.ts'
import {
  dataOf,
  lookOfStyle,
  mailingInWords,
  mailingSettings,
  PLAIN_REPORT_LOOK,
  readStoredReport,
  reportContent,
  reportData,
  ofQuestion,
  reportDocument,
  reportHeadlines,
  reportPage,
  reportSubtitle,
  reportTables,
  sheetNames,
  type MadeQuestion,
  type MadeReport,
  type ReportPart,
} from './index.ts'

const question = (rows: AnswerRow[], more: Partial<MadeQuestion> = {}): MadeQuestion => {
  const { keys: _keys, ...total } = row(
    [],
    rows.reduce((sum, { scans }) => sum + scans, 0),
  )
  return {
    ...{ kind: 'question', key: 'q1', title: 'Through which piece?', of: '', zone: 'Europe/Berlin' },
    ...{ from: '2026-07-01', to: '2026-07-31', what: 'scans', by: ['piece'], narrowed: [] },
    ...{ against: null, before: null, total, marks: [], expected: [], rowsSince: null, chosen: [] },
    answer: {
      ...{ rows, rowsTotal: rows.length, total, spots: {}, leads: [], leavesOutFolded: false },
      names: { piece: { 7: 'Pier poster', 8: 'Desk card' } },
    },
    ...{ drawnAs: 'usual', hasPatterns: false, rows: 10, spot: null },
    ...more,
  }
}
const made = (...sections: MadeReport['sections']): MadeReport => ({
  ...{ name: 'July', owner: 'Saltmarsh Line', campaign: 'Summer', zone: 'Europe/Berlin' },
  ...{ madeAt: Date.parse('2026-08-01T06:00:00Z'), currency: 'EUR', look: PLAIN_REPORT_LOOK, sections },
})
const partsOf = <K extends ReportPart['kind']>(report: MadeReport, kind: K) =>
  reportDocument(report).parts.filter((part): part is Extract<ReportPart, { kind: K }> => part.kind === kind)
const TWO = [row(['7'], 263, { leads: 81 }), row(['8'], 3, { leads: 1 })]

describe('a report as it is read', () => {
  it('sets a return, which may be below nothing, beside the other one and not in its hundredths', () => {
    const then = { ...NO_FIGURES, value: 96, cost: 100 }
    const rows = [row(['7'], 40, { value: 150, cost: 100, before: then })]
    const held = { what: 'returnOnCost', against: 'year before' } as const
    const before = { from: '2025-07-01', to: '2025-07-31', campaign: null }
    expect(partsOf(made(question(rows, { ...held, before })), 'table')[0]?.rows).toEqual([
      ['Pier poster', '50.0 %', '−4.0 % before', '40'],
    ])
  })
  it('names the campaign that its figures are held against, and says that its figures are there', () => {
    const before = { from: '2026-07-01', to: '2026-07-31', campaign: 'Seal watching' }
    const { keys: _keys, ...held } = row([], 12, { before: NO_FIGURES })
    const report = made(question(TWO, { before, against: 'Seal watching', total: held }))
    expect(partsOf(report, 'about')[0]?.lines[0]).toBe(
      '1 Jul 2026 to 31 Jul 2026, Europe/Berlin · against “Seal watching”, 1 Jul 2026 to 31 Jul 2026',
    )
    expect(partsOf(report, 'figures')[0]?.figures[0]?.beside).toBe('none there')
    expect(partsOf(report, 'table')[0]?.headings).toContain('Against Seal watching')
  })
  it('says whose it is, of what days, and how it was counted', () => {
    const { subtitle, method } = reportDocument(made(question(TWO)))
    expect(subtitle).toBe('Saltmarsh Line · Summer · 1 Jul 2026 to 31 Jul 2026')
    expect(method[0]).toBe('Made on 1 Aug 2026, 08:00, Europe/Berlin.')
    expect(method.join(' ')).toContain('Days are those of Europe/Berlin; weeks begin on Monday')
    // Days that differ are said beside each question.
    const both = made(question(TWO), question(TWO, { to: '2026-07-01' }))
    expect(reportDocument(both).subtitle).toBe('Saltmarsh Line · Summer')
  })

  it('has rates with their intervals, and says which rest on few scans', () => {
    const [table] = partsOf(made(question(TWO, { what: 'leadRate' })), 'table')
    expect(table?.headings).toEqual(['Piece', 'Leads per scan', '95 % lie in', 'Scans'])
    // Newcombe 1998, 81 of 263, from memory.
    expect(table?.rows[0]).toEqual(['Pier poster', '30.8 %', '25.5 to 36.6 %', '263'])
    expect(table?.rows[1]?.[1]).toBe('33.3 %, of few scans')
    expect(reportDocument(made(question(TWO, { what: 'leadRate' }))).method.join(' ')).toContain(
      'fewer than 5 scans',
    )
  })

  it('shows so many rows as are wanted and says how many there are more', () => {
    const many = Array.from({ length: 30 }, (_, i) => row([String(i)], 30 - i))
    const [table] = partsOf(made(question(many, { rows: 5 })), 'table')
    expect([table?.rows.length, table?.more]).toEqual([5, 'And 25 more rows.'])
    expect(partsOf(made(question(many, { rows: 0 })), 'table')).toEqual([])
  })

  it('says that nothing was counted, and draws nothing of it', () => {
    const report = made(question([]))
    expect(partsOf(report, 'chart')).toEqual([])
    expect(partsOf(report, 'about').flatMap(({ lines }) => lines)).toContain(
      'Nothing was counted in these days.',
    )
  })

  it('draws what cannot be drawn as wanted in the usual way', () => {
    const heightAs = (drawnAs: MadeQuestion['drawnAs']) =>
      partsOf(made(question(TWO, { drawnAs })), 'chart').map(({ height }) => height)
    expect(heightAs('map')).toEqual(heightAs('usual'))
    expect(heightAs('none')).toEqual([])
  })

  it('is a page in which nothing that anybody wrote is markup', () => {
    fc.assert(
      fc.property(fc.string(), fc.string(), (name, title) => {
        const page = reportPage(
          reportDocument({ ...made(question(TWO, { title })), name }),
          { look: PLAIN_REPORT_LOOK, chart: () => html`<svg></svg>`, logo: null, fonts: '' },
          { nonce: 'n' },
        )
        const tags = new Set([...page.matchAll(/<([a-z0-9]+)/gi)].map(([, tag = '']) => tag.toLowerCase()))
        tags.delete('html')
        for (const tag of tags) expect(TAGS).toContain(tag)
      }),
      { numRuns: 100 },
    )
  })
})
const TAGS =
  'head meta title style body main header div h1 h2 p dl dt dd b span figure svg table caption thead tbody tr th td footer'.split(
    ' ',
  )

describe('a report in a few words', () => {
  it('says the same figures as its page, question by question', () => {
    const report = made(question(TWO), question(TWO, { title: 'To what end?', what: 'leadRate' }))
    const headlines = reportHeadlines(report)
    expect(headlines.map(({ title }) => title)).toEqual(['Through which piece?', 'To what end?'])
    expect(headlines.map(({ figure }) => figure)).toEqual(
      partsOf(report, 'figures').map(({ figures: [first] }) => first),
    )
    expect(reportSubtitle(report)).toBe(reportDocument(report).subtitle)
  })

  it('has nothing to say of questions that could not be answered', () => {
    const failed = { kind: 'failed', key: 'x', title: 'Gone', sentence: 'It was deleted.' } as const
    expect(reportHeadlines(made(failed))).toEqual([])
    expect(reportSubtitle(made(failed))).toBe('Saltmarsh Line · Summer')
  })
})

describe('what a question of a report is of', () => {
  const ofCampaign = { clientId: null, campaignId: 3 }
  const ofNone = { clientId: null, campaignId: null }
  it.each([
    [{}, ofCampaign, { campaignId: 3 }],
    [{}, { clientId: 2, campaignId: null }, { clientId: 2 }],
    [{}, ofNone, {}],
    // The nearest of what it names; a campaign goes along, so that it is found again.
    [{ campaignId: 3, codeId: 7 }, ofCampaign, { codeId: 7 }],
    [{ campaignId: 3, routeId: 5 }, ofCampaign, { routeId: 5 }],
    [{ campaignId: 4 }, ofNone, { campaignId: 4 }],
    [{ clientId: 2 }, ofNone, { clientId: 2 }],
  ])('%j in a report of %j: %j', (named, report, of) => {
    expect(ofQuestion({ ...named, view: DEFAULT_VIEW as never }, report)).toEqual(of)
  })
})

describe('a report as data', () => {
  it('is the answers alone, in the shape that the API promises', () => {
    const failed = { kind: 'failed', key: 'x', title: 'Gone', sentence: 'It was deleted.' } as const
    const data = dataOf(made(question(TWO), failed))
    expect(reportData.strict().safeParse(data).success).toBe(true)
    expect(data.questions[0]?.answer.rows).toEqual(TWO)
    expect(data.questions[0]).not.toHaveProperty('drawnAs')
    expect(data.failed).toEqual([{ title: 'Gone', sentence: 'It was deleted.' }])
  })

  it('is tables with all rows, a sum, and names that sheets may have', () => {
    const tables = reportTables(made(question(TWO), question(TWO)))
    expect(tables.map(({ name }) => name)).toEqual(['Through which piece', 'Through which piece 2'])
    expect(tables[0]?.total.slice(0, 2)).toEqual(['All', 266])
  })

  it('names sheets as Office Open XML lets them be named, each once', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ maxLength: 60 }), { maxLength: 12 }), (titles) => {
        const names = sheetNames(titles, ['Report'])
        expect(new Set(names.map((each) => each.toLowerCase())).size).toBe(titles.length)
        for (const name of names) {
          expect(name).toMatch(/^[^\\/?*[\]:']{1,31}$/)
          expect(name.toLowerCase()).not.toBe('report')
        }
      }),
    )
  })

  it('is CSV in which no text is a formula', () => {
    const names = { piece: { 7: '=1+1', 8: '@SUM' } }
    const [table] = reportTables(made(question(TWO, { answer: { ...question(TWO).answer, names } })))
    expect(table && tableCsv(table)).toMatch(/\r\n'=1\+1,263/)
  })
})

describe('what is taken of a house style', () => {
  const inked = (rgb: string) => ({
    ...PLAIN_LOOK,
    ink: { kind: 'solid' as const, tint: { rgb, cmyk: null } },
  })
  it.each([
    ['#7b3f68', '#7b3f68'],
    ['#000000', PLAIN_REPORT_LOOK.accent],
    // WCAG 2.2: 4.54:1 is enough for text, yellow on white is not.
    ['#767676', '#767676'],
    ['#ffee00', PLAIN_REPORT_LOOK.accent],
  ])('%s gives %s, which is read on white', (ink, accent) => {
    expect(lookOfStyle(inked(ink)).accent).toBe(accent)
    expect(contrastRatio('#ffffff', accent)).toBeGreaterThanOrEqual(4.5)
  })
})

describe('what a report may hold', () => {
  const faultOf = (content: object) =>
    reportContent.safeParse({ name: 'A', ...content }).error?.issues[0]?.message
  it.each([
    [{ name: ' ' }, 'Give the report a name.'],
    [{ clientId: 1, campaignId: 2 }, 'of a client or of a campaign'],
    [{ period: { from: '2026-07-02', to: '2026-07-01' } }, 'before the first'],
    [
      { blocks: [{ kind: 'question', key: 'a', value: { view: DEFAULT_VIEW }, rows: 101 }] },
      'at most 100 rows',
    ],
    [
      { blocks: Array.from({ length: 41 }, (_, i) => ({ kind: 'words', key: `w${String(i)}`, text: [] })) },
      'at most 40',
    ],
  ])('%j is refused', (content, sentence) => {
    expect(faultOf(content)).toContain(sentence)
  })
})

describe('a report that was stored long ago', () => {
  it('keeps all that can still be read, and gets what is new as usual', () => {
    const asked = { kind: 'question', key: 'a', value: { view: DEFAULT_VIEW } }
    const gone = { ...asked, key: 'b', value: { view: { ...DEFAULT_VIEW, by: ['weather'] } } }
    const read = readStoredReport({ name: 'Old', blocks: [gone, asked, { kind: 'film' }] })
    expect(read.blocks).toEqual([expect.objectContaining({ key: 'a', rows: 10, drawnAs: 'usual' })])
    expect(read).toMatchObject({ name: 'Old', period: { preset: '30' }, clientId: null })
  })
})

describe('when a report is mailed', () => {
  const settings = (given: object) =>
    mailingSettings.parse({ zone: 'UTC', to: [' Bo@Gull.example '], ...given })
  it.each([
    [{ every: 'hour' }, 'every hour'],
    [{ every: 'day', at: '06:15' }, 'every day at 06:15, UTC'],
    [{ every: 'week', weekday: 7 }, 'every Sunday at 07:00, UTC'],
    [{ every: 'month', monthDay: 28 }, 'on day 28 of each month at 07:00, UTC'],
  ])('%j: %s', (given, words) => {
    expect(mailingInWords(settings(given))).toBe(words)
    expect(settings(given).to).toEqual(['bo@gull.example'])
  })
})
