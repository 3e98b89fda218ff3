import * as echarts from 'echarts'
import fc from 'fast-check'
import { Parser } from 'htmlparser2'
import { describe, expect, it } from 'vitest'
import { answerRow as row } from '../tests/answerRow.ts'
import { contrastRatio } from '../symbol/index.ts'
import { DIMENSION_NAMES } from '../dimensions/index.ts'
import { NO_FIGURES, type AnswerRow } from '../results/index.ts'
import {
  answerTable,
  changeInWords,
  CHART_COLOURS,
  chartKinds,
  drawAnswer,
  keyLabel,
  keyLabels,
  linesOf,
  lastHourChart,
  MAP_SHAPE,
  streamsOf,
  mapView,
  intervalsChart,
  onwardStreams,
  measureShort,
  measureText,
  type ChartKind,
  type Drawn,
} from './index.ts'

const drawn = (given: Partial<Drawn> & Pick<Drawn, 'by'>, rows: AnswerRow[]): Drawn => ({
  what: 'scans',
  answer: { rows, names: {}, spots: {}, leads: [] },
  colours: CHART_COLOURS.light,
  currency: 'EUR',
  against: null,
  marks: [],
  chosen: [],
  hasPatterns: false,
  ...given,
})
/** As the library draws it, in text that can be read. */
function svgOf(kind: Exclude<ChartKind, 'map'>, of: Drawn, timeKeys: string[] = []): string {
  const { option, height } = drawAnswer(kind, of, timeKeys)
  const chart = echarts.init(null, null, { renderer: 'svg', ssr: true, width: 900, height })
  chart.setOption(option)
  const svg = chart.renderToSVGString()
  chart.dispose()
  return svg
}

describe('what a key is called', () => {
  it.each([
    ['day', '2026-07-01', 'Wed, 1 Jul 2026'],
    ['hour', '2026-07-01T14:00+02:00', '1 Jul, 14:00'],
    ['week', '2026-W27', 'week 27 of 2026'],
    ['month', '2026-07', 'Jul 2026'],
    ['quarter', '2026-Q3', 'Q3 2026'],
    ['hourOfWeek', '7-23', 'Sun 23:00'],
    ['city', 'DE\tSchleswig-Holstein\tHusum', 'Husum, Germany'],
    ['country', 'DK', 'Denmark'],
    ['language', '', 'Not named'],
    ['channel', '', 'unassigned'],
    ['distance', '1000-', '1,000 km and more'],
    ['distance', '0-1', 'under 1 km'],
    ['outcome', 'full-today', 'full for the day'],
    ['medium', 'poster', 'poster'],
  ] as const)('%s %j: %s', (dimension, key, label) => {
    expect(keyLabel(dimension, key)).toBe(label)
  })

  it('is the name of a thing that is known by number', () => {
    expect(keyLabel('piece', '7', { piece: { 7: 'Pier poster' } })).toBe('Pier poster')
  })

  it('is said of anything, whatever somebody typed into an address', () => {
    fc.assert(
      fc.property(fc.constantFrom(...DIMENSION_NAMES), fc.string(), (dimension, key) => {
        expect(typeof keyLabel(dimension, key, { piece: {} })).toBe('string')
      }),
      {
        examples: [
          ['language', 'x'],
          ['country', '!'],
          ['day', '2026-13-45'],
          ['hourOfWeek', ''],
          ['outcome', 'constructor'],
          ['piece', 'toString'],
        ],
      },
    )
  })

  it('tells an hour that comes twice apart', () => {
    expect(keyLabels('hour', ['2026-10-25T02:00+02:00', '2026-10-25T02:00+01:00'])).toEqual([
      '25 Oct, 02:00 (+02:00)',
      '25 Oct, 02:00 (+01:00)',
    ])
  })
})

describe('a figure', () => {
  it('is written by what it is, and is no figure where there is none', () => {
    expect(measureText('scans', 12345, 'EUR')).toBe('12,345')
    expect(measureText('leadRate', 0.0512, 'EUR')).toBe('5.1 %')
    expect(measureText('returnOnCost', -0.508, 'EUR')).toBe('−50.8 %')
    expect(measureShort('returnOnCost', -0.508, 'EUR')).toBe('−50.8 %')
    expect(measureText('costPerScan', 2.5, 'EUR')).toBe('€2.50')
    expect(measureText('cost', 1200, 'GBP')).toBe('£1,200')
    expect(measureText('costPerLead', null, 'EUR')).toBe('no figure')
    expect([measureShort('scans', 12345, 'EUR'), measureShort('leadRate', null, 'EUR')]).toEqual([
      '12.3k',
      '–',
    ])
  })
})

describe('a chart', () => {
  it('can be drawn of every question, the usual way first', () => {
    expect(chartKinds(['day'])).toEqual(['time'])
    expect(chartKinds(['weekday'])).toEqual(['time'])
    expect(chartKinds(['hourOfWeek'])).toEqual(['week'])
    expect(chartKinds(['city'])).toEqual(['bars', 'map'])
    expect(chartKinds(['piece'])).toEqual(['bars'])
    expect(chartKinds(['medium', 'week'])).toEqual(['lines', 'multiples'])
    expect(chartKinds(['medium', 'country'])).toEqual(['cells', 'flow'])
  })

  it('of time shows its pieces, what it is held against, and what was changed', () => {
    const rows = [
      row(['2026-07-01'], 5, { before: { ...NO_FIGURES, scans: 4, uniques: 4 } }),
      row(['2026-07-02'], 7),
    ]
    const of = drawn({ by: ['day'], against: 'days before', marks: [{ key: '2026-07-02', name: '1' }] }, rows)
    const svg = svgOf('time', of)
    for (const text of ['Scans', 'Unique scans', 'Scans, days before', 'Wed, 1 Jul 2026', '>1<'])
      expect(svg).toContain(text)
    expect(drawAnswer('time', of, []).keysAt(1, 0)).toEqual(['2026-07-02'])
  })

  it('of keys without an order has a bar each, with its figure, those that are chosen stand out', () => {
    const rows = [row(['poster'], 40, { leads: 2 }), row(['card'], 10), row(['gone'], 0)]
    const of = drawn({ what: 'leadRate', by: ['medium'], chosen: ['card'] }, rows)
    const svg = svgOf('bars', of)
    for (const text of ['poster', '5.0 %', '0.0 %']) expect(svg).toContain(text)
    expect(JSON.stringify(drawAnswer('bars', of, []).option)).toContain('"opacity":0.3')
  })

  it('of time by something else has every piece of time, and a line each of the largest keys', () => {
    const days = ['2026-07-01', '2026-07-02', '2026-07-03']
    const rows = [
      row(['card', '2026-07-03'], 1),
      row(['poster', '2026-07-01'], 9),
      row(['poster', '2026-07-03'], 4),
    ]
    const { lines } = linesOf('scans', ['medium', 'day'], false, { rows }, days)
    expect(lines).toEqual([
      { key: 'poster', values: [9, 0, 4] },
      { key: 'card', values: [0, 0, 1] },
    ])
    // A rate of nothing is no figure: a gap, not a nought.
    expect(linesOf('leadRate', ['medium', 'day'], false, { rows }, days).lines[0]?.values).toEqual([
      0,
      null,
      0,
    ])
    const of = drawn({ by: ['medium', 'day'] }, rows)
    for (const kind of ['lines', 'multiples'] as const) {
      const { keysAt } = drawAnswer(kind, of, days)
      expect(keysAt(2, 1)).toEqual(['card', '2026-07-03'])
      expect(svgOf(kind, of, days)).toContain('poster')
    }
  })

  it('of two things has a cell each, with the figure in it, that says which it is', () => {
    const rows = [row(['poster', 'DE'], 9), row(['card', 'DK'], 4)]
    const of = drawn({ by: ['medium', 'country'] }, rows)
    const svg = svgOf('cells', of)
    for (const text of ['poster', 'Germany', '>9<', '>4<']) expect(svg).toContain(text)
    expect(drawAnswer('cells', of, []).keysAt(1, 0)).toEqual(['card', 'DK'])
    const week = drawn({ by: ['hourOfWeek'] }, [row(['1-00'], 3), row(['7-23'], 9)])
    expect(svgOf('week', week)).toContain('Sun')
    expect(drawAnswer('week', week, []).keysAt(1, 0)).toEqual(['7-23'])
  })

  it('has patterns where they are asked for', () => {
    const rows = [row(['poster'], 5)]
    expect(svgOf('bars', drawn({ by: ['medium'], hasPatterns: true }, rows))).toContain('<pattern')
    expect(svgOf('bars', drawn({ by: ['medium'] }, rows))).not.toContain('<pattern')
  })

  it('is drawn of nothing too', () => {
    for (const [kind, by] of [
      ['time', ['day']],
      ['bars', ['piece']],
      ['week', ['hourOfWeek']],
      ['cells', ['medium', 'country']],
      ['flow', ['medium', 'country']],
      ['lines', ['medium', 'day']],
      ['multiples', ['medium', 'day']],
    ] as const)
      expect(svgOf(kind, drawn({ by }, []))).toContain('<svg')
  })

  it('has colours that stand out from the sheet, in both schemes (WCAG 2.2: 3:1 for what is needed to understand)', () => {
    for (const { series, sheet, signal, ink, quiet } of Object.values(CHART_COLOURS)) {
      // Ochre alone is lighter on white: it is told by its dots and its label.
      for (const colour of [...series, signal].filter((each) => each !== '#C4881C'))
        expect([colour, contrastRatio(colour, sheet) >= 3]).toEqual([colour, true])
      for (const colour of [ink, quiet]) expect(contrastRatio(colour, sheet)).toBeGreaterThanOrEqual(4.5)
    }
  })
})

describe('the view of a map', () => {
  it('is near where scans are near each other, and the world where there are none', () => {
    const view = mapView(
      [
        { at: [8, 53], value: 5 },
        { at: [10, 54], value: 5 },
      ],
      null,
    )
    const [[west, north], [east, south]] = view?.corners ?? [
      [0, 0],
      [0, 0],
    ]
    expect([west < 8, east > 10, north > 54, south < 53, east - west < 12]).toEqual([
      true,
      true,
      true,
      true,
      true,
    ])
    expect(mapView([], null)).toBeNull()
  })

  it('holds nearly all scans and the piece, whatever lies where', () => {
    const spot = fc.record({
      at: fc.tuple(
        fc.double({ min: -170, max: 170, noNaN: true }),
        fc.double({ min: -50, max: 70, noNaN: true }),
      ),
      value: fc.integer({ min: 1, max: 1000 }),
    })
    fc.assert(
      fc.property(fc.array(spot, { minLength: 1, maxLength: 20 }), (spots) => {
        const sorted = [...spots].sort((a, b) => b.value - a.value)
        const view = mapView(sorted, { latitude: 54, longitude: 8 })
        // The whole world holds them all.
        if (view === null) return
        const on = (corner: readonly [number, number]) => view.projection([...corner]) ?? [NaN, NaN]
        const [[left, top], [right, bottom]] = [on(view.corners[0]), on(view.corners[1])]
        expect((right - left) / (bottom - top)).toBeCloseTo(MAP_SHAPE, 4)
        const inView = (corner: readonly [number, number]) => {
          const [x, y] = on(corner)
          return x >= left - 1 && x <= right + 1 && y >= top - 1 && y <= bottom + 1
        }
        const held = spots.filter(({ at }) => inView(at)).reduce((sum, { value }) => sum + value, 0)
        expect(held).toBeGreaterThanOrEqual(0.95 * spots.reduce((sum, { value }) => sum + value, 0))
        expect(inView([8, 54])).toBe(true)
      }),
    )
  })
})

describe('a flow', () => {
  const rows = [
    row(['p1', 'lane a'], 30),
    row(['p1', 'lane b'], 10),
    row(['p2', 'lane a'], 5),
    ...Array.from({ length: 20 }, (_, i) => row([`small ${String(i)}`, 'lane b'], 1)),
  ]
  it('loses nothing: the largest keys stand by themselves, all smaller ones together', () => {
    const streams = streamsOf('scans', rows)
    expect(streams.reduce((sum, { value }) => sum + value, 0)).toBe(65)
    expect(streams[0]).toEqual({ from: 'p1', to: 'lane a', value: 30 })
    expect(new Set(streams.map(({ from }) => from)).size).toBe(13)
    // Twelve stand alone: two pieces and ten of the small ones.
    expect(streams.find(({ from }) => from === null)).toEqual({ from: null, to: 'lane b', value: 10 })
  })
  it('is drawn with what its ends are called', () => {
    const of = drawn({ by: ['piece', 'outcome'] }, rows)
    const { option, height } = drawAnswer(
      'flow',
      { ...of, answer: { ...of.answer, names: { piece: { p1: 'Poster' } } } },
      [],
    )
    const [{ data, links }] = (
      option as { series: [{ data: { name: string }[]; links: { words: string; value: number }[] }] }
    ).series
    expect(new Set(data.map(({ name }) => name)).size).toBe(data.length)
    expect(links[0]).toMatchObject({ words: 'Poster → lane a', value: 30 })
    expect(height).toBeGreaterThan(300)
  })
  it('goes on from lanes to where they lead, with no scan more or less at any stage', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(30), fc.nat(30), fc.nat(4), fc.nat(50)), { minLength: 1, maxLength: 60 }),
        (parts) => {
          const laned = parts.map(([piece, lane, , scans]) =>
            row([`p${String(piece)}`, `l${String(lane)}`], scans),
          )
          const leads = parts.map(([, , end]) => `end ${String(end)}`)
          const answer = { rows: laned, names: {}, spots: {}, leads }
          const sum = (streams: readonly { value: number }[]) =>
            streams.reduce((all, { value }) => all + value, 0)
          const first = streamsOf('scans', laned)
          const onward = onwardStreams('scans', ['piece', 'lane'], answer)
          expect(sum(onward)).toBe(sum(first))
          const into = (key: string | null) => sum(first.filter(({ to }) => to === key))
          const outOf = (key: string | null) => sum(onward.filter(({ from }) => from === key))
          for (const { to } of first) expect(outOf(to)).toBe(into(to))
          expect(onwardStreams('scans', ['piece', 'country'], answer)).toEqual([])
        },
      ),
    )
  })
  it('is nothing where nothing was counted', () => {
    expect(streamsOf('leads', rows)).toEqual([])
  })
})

describe('figures with between what they may lie', () => {
  const svg = (
    rows: Parameters<typeof intervalsChart>[0]['rows'],
    mark: { at: number; name: string } | null,
  ) => {
    const { option, height } = intervalsChart({
      rows,
      write: (value) => `${value.toFixed(1)} points`,
      mark,
      colours: CHART_COLOURS.light,
    })
    const chart = echarts.init(null, null, { renderer: 'svg', ssr: true, width: 600, height })
    chart.setOption(option)
    const drawnSvg = chart.renderToSVGString()
    chart.dispose()
    return drawnSvg
  }
  it('say their values and what they are held to, below nothing too', () => {
    const drawnSvg = svg(
      [
        { name: 'Poster', value: -2, between: { low: -5, high: 1 } },
        { name: 'Card', value: 3, between: { low: 2, high: 4 } },
      ],
      { at: 0, name: 'All others' },
    )
    for (const text of ['Poster', 'Card', '-2.0 points', '3.0 points', 'All others'])
      expect(drawnSvg).toContain(text)
  })
  it('are plain bars where nothing is said of that, and drawn where there are none', () => {
    expect(svg([{ name: 'Scans', value: 7, between: null }], null)).toContain('7.0 points')
    expect(svg([], null)).toContain('<svg')
  })
})

describe('every chart that is drawn as SVG', () => {
  // XML 1.0, section 3.1: what follows a value in quotes is white space or the end of the tag.
  it('is well-formed: no attribute breaks out of its quotes', () => {
    const names = new Set<string>()
    new Parser(
      {
        onattribute(name) {
          names.add(name)
        },
      },
      { xmlMode: true },
    ).end(svgOf('time', drawn({ by: ['day'] }, [row(['2026-07-01'], 5)])))
    for (const name of names) expect(name).toMatch(/^[a-z][\w:-]*$/i)
    expect(names).toContain('style')
  })
})

describe('the last hour', () => {
  it('has a bar for each second, at its time of the clock, and none for what lies outside', () => {
    const until = Date.parse('2026-07-01T10:00:00Z')
    const option = lastHourChart(
      until,
      [
        [1, 2],
        [3600, 1],
        [3601, 9],
      ],
      'Europe/Berlin',
      CHART_COLOURS.light,
    )
    const { xAxis, series } = option as { xAxis: { data: string[] }; series: [{ data: number[] }] }
    const [{ data }] = series
    expect([data.length, data[0], data[3599], data.reduce((sum, n) => sum + n, 0)]).toEqual([3600, 1, 2, 3])
    expect([xAxis.data[0], xAxis.data[3599]]).toEqual(['11:00:00', '11:59:59'])
  })
})

describe('the table of an answer', () => {
  it('has every figure with its interval, and what it is held against', () => {
    const before = { ...NO_FIGURES, scans: 10, uniques: 9, leads: 1 }
    const table = answerTable(
      'leadRate',
      ['piece'],
      {
        rows: [row(['7'], 263, { leads: 81, before }), row(['8'], 0)],
        names: { piece: { 7: 'Poster', 8: 'Card' } },
        total: { ...NO_FIGURES, scans: 263, uniques: 263, leads: 81, before },
      },
      'days before',
    )
    expect(table.headings).toEqual([
      'Piece',
      'Leads per scan',
      'From (95 %)',
      'To (95 %)',
      'Leads per scan, days before',
      'Scans',
      'Unique scans',
      'Leads',
      'Arrivals',
      'Goals',
      'Value',
      'Cost',
    ])
    // Newcombe 1998, 81 of 263, from memory.
    expect(
      table.rows[0]?.map((cell) => (typeof cell === 'number' ? Math.round(cell * 1e4) / 1e4 : cell)),
    ).toEqual(['Poster', 0.308, 0.2553, 0.3662, 0.1, 263, 263, 81, 0, 0, 0, null])
    expect(table.rows[1]).toEqual(['Card', null, null, null, null, 0, 0, 0, 0, 0, 0, null])
    expect(table.total.slice(0, 2)).toEqual(['All', 81 / 263])
    expect([table.forms.length, table.total.length]).toEqual([12, 12])
  })
})

describe('a figure beside an earlier one', () => {
  const write = (value: number) => String(value)
  it.each([
    [12, 10, '+20 % against 10'],
    [5, 10, '−50 % against 10'],
    [99, 10, '+890 % against 10'],
    [9811, 2, '4,906 times 2'],
    [5, 0, 'none before'],
    [0, 0, 'none before either'],
    [null, 10, '10 before'],
    [5, null, 'no figure before'],
  ])('%s after %s: %s', (now, before, words) => {
    expect(changeInWords(now, before, write)).toBe(words)
  })
  it('of another campaign was not before, but there', () => {
    expect([changeInWords(0, 0, write, 'there'), changeInWords(null, 10, write, 'there')]).toEqual([
      'none there either',
      '10 there',
    ])
  })
})
