import { DEFAULT_VIEW, partedBy, viewQuestions, type Answer } from '@flimbo/core/results'
import { PLAIN_REPORT_LOOK, type MadeQuestion, type MadeReport, type ReportFile } from '@flimbo/core/reports'
import type { Dimension } from '@flimbo/core/dimensions'
import { callThread } from '../../server/threads/index.ts'
import type { ReportCalls } from '../../server/reports/report-thread.ts'

type Ask = (questions: ReturnType<typeof viewQuestions>) => readonly Answer[]

const BY: readonly (readonly Dimension[])[] = [
  ['month'],
  ['piece'],
  ['hourOfWeek'],
  ['city'],
  ['piece', 'country'],
]

/** Makes a report of five questions and draws it in every way; each a second time, since the first also loads what it needs. */
export async function measureReports(ask: Ask, days: { from: string; to: string }): Promise<void> {
  const began = performance.now()
  const sections = BY.map((by, i): MadeQuestion => {
    const view = { ...DEFAULT_VIEW, by }
    const [total, answer] = ask(viewQuestions(view, partedBy(view, days)))
    if (!total || !answer) throw new Error('Both questions are answered')
    return {
      ...{
        kind: 'question',
        key: `q${String(i)}`,
        title: `By ${by.join(' and ')}`,
        of: '',
        zone: 'Europe/Berlin',
      },
      ...{
        ...days,
        what: 'scans',
        by: [...by],
        narrowed: [],
        against: null,
        before: null,
        total: total.total,
        answer,
      },
      ...{ marks: [], expected: [], rowsSince: null, chosen: [], hasPatterns: false, rows: 25, spot: null },
      drawnAs: by[0] === 'city' ? 'map' : 'usual',
    }
  })
  const asked = performance.now() - began
  const made: MadeReport = {
    ...{
      name: 'Two years',
      owner: 'Bench',
      campaign: 'Campaign 1',
      zone: 'Europe/Berlin',
      madeAt: Date.now(),
    },
    ...{ currency: 'EUR', look: PLAIN_REPORT_LOOK, sections },
  }
  const thread = callThread<ReportCalls>(
    'report-thread',
    new URL('../../server/reports/', import.meta.url).href + 'x.ts',
  )
  const took: string[] = []
  const timed = async (name: string, draw: () => Promise<{ readonly length: number }>) => {
    await draw()
    const start = performance.now()
    const { length } = await draw()
    took.push(`${name} ${(performance.now() - start).toFixed(0)} ms (${(length / 1024).toFixed(0)} kB)`)
  }
  await timed('page', () => thread.call('page', made, null, { nonce: '', fonts: '', before: '' }))
  for (const file of ['pdf', 'xlsx', 'csv', 'json'] as const satisfies readonly ReportFile[])
    await timed(file, () => thread.call('file', made, file, null))
  await thread.close()
  console.log(`report of ${String(BY.length)} questions: asked in ${asked.toFixed(0)} ms; ${took.join(', ')}`)
}
