import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { DEFAULT_VIEW, NO_FIGURES, type Answer, type AnswerRow, type Asked } from '@flimbo/core/results'
import { createMemoryRouter, Outlet, RouterProvider } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { SessionContext, type SignedIn } from '../session/index.ts'
import { around, startOffice } from '../tests/office.tsx'
import { ResultsScreen } from './ResultsScreen.tsx'

// A chart needs a canvas; what it is told is tested where it is made.
vi.mock('../charts/index.ts', async (original) => ({
  ...(await original<typeof import('../charts/index.ts')>()),
  Chart: ({ label, choose }: { label: string; choose?: (at: object) => void }) => (
    <button type="button" onClick={() => choose?.({ dataIndex: 0, seriesIndex: 0 })}>
      {label}
    </button>
  ),
}))

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

const KEYS: Readonly<Record<string, readonly string[]>> = {
  country: ['DE', 'DK'],
  city: ['DE\tCoast\tHusum'],
  hourOfWeek: ['1-00', '1-01', '7-23'],
  day: ['2026-07-30', '2026-07-31'],
  piece: ['7'],
  medium: ['poster', 'card'],
  variant: ['3\tl1\ta', '3\tl1\tb'],
  // There was none.
  referrer: [],
}
const figures = { ...NO_FIGURES, scans: 40, uniques: 30, leads: 4, cost: 20, before: null }
const row = (keys: string[], i = 0): AnswerRow => ({ ...figures, keys, scans: 40 - i })
const answerTo = ({ by = [] }: Partial<Asked['questions'][number]>): Answer => {
  const [first, second] = by
  const keys = first === undefined ? [] : (KEYS[first] ?? ['x'])
  return {
    rows: keys.map((key, i) => row(second === undefined ? [key] : [key, KEYS[second]?.[0] ?? 'x'], i)),
    rowsTotal: keys.length,
    // Of two rows.
    total: keys.length === 2 ? { ...figures, scans: 79, leads: 8 } : figures,
    names: {
      piece: { 7: 'Pier poster' },
      variant: { '3\tl1\ta': 'Boats: phones, Long', '3\tl1\tb': 'Boats: phones, Short' },
    },
    spots: {},
    leads: [],
    leavesOutFolded: false,
  }
}

const MARKS = [
  {
    kind: 'destination',
    at: Date.parse('2026-07-30T10:00:00Z'),
    id: 1,
    by: 'Anna',
    name: 'Pier',
    detail: 'https://a.example',
  },
  {
    kind: 'release',
    at: Date.parse('2026-07-30T11:00:00Z'),
    id: 1,
    by: 'Anna',
    name: 'Poster',
    detail: 'release 2',
  },
  { kind: 'note', at: Date.parse('2026-07-31T00:00:00Z'), id: 5, by: 'Jonas', name: 'Storm', detail: '' },
]
const CHECK = {
  ...{ id: 1, routeId: 1, codeId: 7, address: 'https://a.example/old?utm_source=pier', at: 0, ms: 1 },
  ...{ verdict: 'tags-lost', status: 200, lost: ['utm_source'], failingSince: null, sentence: 'Lost.' },
  hops: [
    { address: 'https://a.example/old?utm_source=pier', status: 302, ms: 1, to: 'https://a.example/new' },
    { address: 'https://a.example/new', status: 200, ms: 1, to: null },
  ],
}
const SAVED = {
  id: 4,
  name: 'Cities of the pier',
  by: 'Anna',
  value: { campaignId: 3, codeId: 7, view: { ...DEFAULT_VIEW, by: ['city'], filters: { channel: [''] } } },
}

function show(address: string) {
  const office = startOffice(({ path, body }) => {
    if (path === '/figures') {
      const asked = body as Asked
      const before =
        asked.against === 'before' ? { from: '2026-06-01', to: '2026-06-30', campaign: null } : null
      return {
        zone: 'UTC',
        from: asked.from,
        to: asked.to,
        before,
        rowsSince: null,
        answers: asked.questions.map(answerTo),
      }
    }
    if (path.startsWith('/results'))
      return {
        zone: 'UTC',
        ever: { scans: 99, uniques: 80, lastAt: null },
        apart: [],
        marks: MARKS,
        rowsSince: null,
      }
    if (path.startsWith('/last-hour')) return { until: 1e12, seconds: [[5, 3]], total: 3 }
    if (path === '/campaigns/names')
      return {
        rows: [
          { id: 3, name: 'Summer' },
          { id: 8, name: 'Winter' },
        ],
      }
    if (path.startsWith('/codes/7/checks')) return CHECK
    if (path.startsWith('/codes/7')) return { id: 7, name: 'Pier poster', medium: 'print' }
    if (path.startsWith('/settings')) return { value: { currency: 'EUR' }, version: 1 }
    if (path === '/questions') return { rows: [SAVED] }
    return { rows: [], total: 0 }
  })
  const session = {
    state: 'signed-in',
    workspace: { id: 1, name: 'W', zone: 'UTC' },
    clients: [{ id: 1, name: 'Own' }],
  } as unknown as SignedIn
  const campaign = { id: 3, name: 'Summer', zone: 'UTC' }
  const router = createMemoryRouter(
    [
      { path: '/results', element: <ResultsScreen /> },
      {
        path: '/campaigns/3',
        element: <Outlet context={campaign} />,
        children: [{ path: 'results', element: <ResultsScreen /> }],
      },
    ],
    { initialEntries: [address] },
  )
  render(
    <SessionContext value={session}>
      <RouterProvider router={router} />
    </SessionContext>,
    { wrapper: around },
  )
  const asked = () =>
    office.asked.filter(({ path }) => path === '/figures').map(({ body }) => body as Required<Asked>)
  const questions = () =>
    asked().flatMap((each) => each.questions.map(({ by = [], filters = {} }) => ({ by, filters })))
  const rows = () => {
    const path = office.asked.map((each) => each.path).find((each) => each.startsWith('/scans?')) ?? ''
    return Object.fromEntries(new URLSearchParams(path.split('?')[1]))
  }
  const paths = () => office.asked.map(({ path }) => path)
  return {
    router,
    paths,
    asked,
    questions,
    rows,
    writes: office.writes,
    search: () => router.state.location.search,
  }
}
const choose = (label: string, option: string) => {
  fireEvent.mouseDown(screen.getByRole('combobox', { name: label }))
  fireEvent.click(screen.getByRole('option', { name: option }))
}

describe('the screen of results', () => {
  it('asks what the address says, of everything where it names nothing', async () => {
    const { asked } = show(
      '/results?what=leadRate&by=medium,country&from=2026-07-01&to=2026-07-02&against=before',
    )
    await screen.findByText('Leads per scan by medium and country')
    const main = asked().find((each) => each.against === 'before')
    expect(main).toMatchObject({ from: '2026-07-01', to: '2026-07-02' })
    expect(main?.questions[1]).toMatchObject({ what: 'leadRate', by: ['medium', 'country'] })
    expect(asked().some((each) => 'campaignId' in each)).toBe(false)
    screen.getByText(/against 1 Jun 2026 to 30 Jun 2026/)
  })

  it('is of the campaign, the route or the piece one is at', async () => {
    const { asked } = show('/campaigns/3/results?code=7')
    await screen.findByRole('table', { name: 'Piece' })
    expect(asked().every((each) => each.codeId === 7 && each.campaignId === undefined)).toBe(true)
    expect(screen.getByText('Scans by day')).toBeTruthy()
  })

  it('puts what is chosen in the bar into the address, so that Back takes it back', async () => {
    const { search, router } = show('/results')
    await screen.findByRole('table', { name: 'Country' })
    choose('Show', 'Cost per scan')
    expect(search()).toBe('?what=costPerScan')
    choose('By', 'Piece')
    choose('And by', 'Week')
    expect(new URLSearchParams(search()).get('by')).toBe('piece,week')
    choose('Period', 'Last month')
    choose('Against', 'a year earlier')
    expect(Object.fromEntries(new URLSearchParams(search()))).toEqual({
      what: 'costPerScan',
      by: 'piece,week',
      days: 'last-month',
      against: 'year',
    })
    await router.navigate(-1)
    await waitFor(() => {
      expect(search()).not.toContain('against')
    })
  })

  it('narrows everything else to what is chosen, and shows that dimension whole', async () => {
    const { search, questions } = show('/results')
    const table = await screen.findByRole('table', { name: 'Country' })
    fireEvent.click(within(table).getByRole('button', { name: 'Denmark' }))
    expect(search()).toBe('?in.country=DK')
    await waitFor(() => {
      expect(questions().some(({ by, filters }) => by[0] === 'city' && filters.country?.[0] === 'DK')).toBe(
        true,
      )
    })
    expect(questions().some(({ by, filters }) => by[0] === 'country' && filters.country)).toBe(false)
    expect((await screen.findByRole('button', { name: 'Denmark' })).getAttribute('aria-pressed')).toBe('true')
    fireEvent.click(
      within(screen.getByText('Country: Denmark').parentElement ?? document.body).getByTestId('CancelIcon'),
    )
    expect(search()).toBe('')
  })

  it('narrows by a part of the chart, and by an hour of the week that arrow keys lead to', async () => {
    const { search } = show('/results?by=medium')
    fireEvent.click(await screen.findByRole('button', { name: /^Scans by medium/ }))
    expect(search()).toBe('?by=medium&in.medium=poster')
    const grid = await screen.findByRole('grid', { name: 'Hours of the week' })
    const first = within(grid).getByRole('button', { name: 'Mon 00:00: 40' })
    first.focus()
    fireEvent.keyDown(first, { key: 'ArrowUp' })
    fireEvent.keyDown(document.activeElement ?? grid, { key: 'ArrowLeft' })
    expect(document.activeElement?.getAttribute('aria-label')).toBe('Sun 23:00: 38')
    expect(grid.querySelectorAll('[tabindex="0"]')).toHaveLength(1)
    fireEvent.click(document.activeElement ?? grid)
    expect(new URLSearchParams(search()).getAll('in.hourOfWeek')).toEqual(['7-23'])
  })

  it('shows the rows behind it, narrowed as it is', async () => {
    const { rows } = show('/results?from=2026-07-02&to=2026-07-31&in.city=DE%09Coast%09Husum')
    fireEvent.click(await screen.findByRole('button', { name: 'Show the rows' }))
    await screen.findByText('No scan in these days.')
    expect(rows()).toMatchObject({
      from: '2026-07-02',
      to: '2026-07-31',
      filters: '{"city":["DE\\tCoast\\tHusum"]}',
    })
  })
})

describe('beside the figures', () => {
  it('stands what may explain them, numbered as on the chart; notes are added and deleted', async () => {
    const { writes } = show('/campaigns/3/results')
    const list = await screen.findByRole('list', { name: 'What may explain it' })
    expect(
      within(list)
        .getAllByRole('listitem')
        .map(({ textContent }) => textContent),
    ).toEqual([
      '130 Jul 2026, 10:00: Anna made “Pier” lead to https://a.example',
      '230 Jul 2026, 11:00: Anna released “Poster” for print, release 2',
      '331 Jul 2026: Storm (noted by Jonas)',
    ])
    fireEvent.click(within(list).getByRole('button', { name: 'Delete the note: Storm' }))
    fireEvent.click(screen.getByRole('button', { name: 'Add a note on a day' }))
    const form = await screen.findByRole('dialog', { name: 'Add a note on a day' })
    fireEvent.change(within(form).getByLabelText('Day'), { target: { value: '1.7.2026' } })
    fireEvent.change(within(form).getByLabelText('What happened'), { target: { value: 'Harbour fair' } })
    fireEvent.click(within(form).getByRole('button', { name: 'Save' }))
    await waitFor(() => {
      expect(writes().filter(({ path }) => path.startsWith('/day-notes'))).toMatchObject([
        { method: 'DELETE', path: '/day-notes/5' },
        { method: 'POST', body: { campaignId: 3, day: '2026-07-01', text: 'Harbour fair' } },
      ])
    })
  })

  it('stand the saved questions, which are asked anew and saved under a name', async () => {
    const { writes, search, router } = show('/campaigns/3/results?by=medium')
    fireEvent.click(await screen.findByRole('button', { name: 'Saved questions (1)' }))
    const saved = await screen.findByRole('dialog', { name: 'Saved questions' })
    fireEvent.change(within(saved).getByLabelText('Name for this question'), { target: { value: 'Media' } })
    fireEvent.click(within(saved).getByRole('button', { name: 'Save' }))
    await waitFor(() => {
      expect(writes().find(({ path }) => path === '/questions')?.body).toEqual({
        name: 'Media',
        value: { campaignId: 3, view: { ...DEFAULT_VIEW, by: ['medium'] } },
      })
    })
    fireEvent.click(within(saved).getByRole('link', { name: 'Cities of the pier' }))
    expect([router.state.location.pathname, search()]).toEqual([
      '/campaigns/3/results',
      '?code=7&by=city&in.channel=',
    ])
  })
})

it('says that nothing was counted where a chart would have nothing in it', async () => {
  show('/campaigns/3/results?by=referrer')
  await screen.findByText('Nothing was counted in these days.')
  expect(screen.queryByRole('button', { name: /^Scans by referrer/ })).toBeNull()
})

describe('to what end', () => {
  it('says how far scans got, and leads on to those who answered and to goals', async () => {
    show('/campaigns/3/results')
    const steps = await screen.findByRole('table', { name: 'How far scans got' })
    expect(
      within(steps)
        .getAllByRole('row')
        .slice(1)
        .map(({ textContent }) => textContent),
    ).toEqual(['Scanned40', 'Answered a form410.0 % (4.0 to 23.1 %)'])
    expect(within(steps).getByRole('link').getAttribute('href')).toBe('/campaigns/3/leads')
    screen.getByText('What happens on your own site is counted once it reports goals.')
  })

  it('names differences of rates that are more than chance, and none of counts', async () => {
    show('/campaigns/3/results?what=leadRate&by=medium&against=before&from=2026-07-01&to=2026-07-30')
    // Nothing was counted before: there is nothing to compare with.
    await screen.findByText('Leads per scan by medium')
    expect(screen.queryByText('More than chance?')).toBeNull()
    cleanup()
    show('/campaigns/3/results?what=leadRate&by=country')
    const table = await screen.findByRole('table', { name: 'Differences, the surest first' })
    expect(within(table).getAllByText('may be chance')).toHaveLength(2)
    screen.getByText(/corrected for 2 comparisons by Benjamini and Hochberg/)
  })
})

describe('the last hour', () => {
  it('is asked for only where somebody wants it, of what the screen is of', async () => {
    const { paths } = show('/campaigns/3/results?code=7')
    await screen.findByRole('table', { name: 'Country' })
    expect(paths().some((path) => path.startsWith('/last-hour'))).toBe(false)
    fireEvent.click(screen.getByRole('button', { name: 'Show the last hour' }))
    await screen.findByText('3 in the last hour, second by second')
    expect(paths()).toContain('/last-hour?codeId=7')
    await screen.findByText('No scan since yesterday.')
    fireEvent.click(screen.getByRole('button', { name: 'Hide the last hour' }))
    expect(screen.queryByRole('list', { name: 'Newest scans' })).toBeNull()
  })
})

describe('another campaign', () => {
  it('is chosen in the bar and held against, from its start or on the same days', async () => {
    const { asked, search } = show('/campaigns/3/results')
    await screen.findByRole('table', { name: 'Country' })
    choose('Against', 'another campaign, from its start')
    expect(search()).toBe('?against=campaignFromStart&other=8')
    await waitFor(() => {
      expect(asked().some((each) => each.against === 'campaignFromStart' && each.otherCampaignId === 8)).toBe(
        true,
      )
    })
    await screen.findByRole('combobox', { name: 'Other campaign' })
  })
  it('is not offered for all campaigns together', async () => {
    const { asked } = show('/results?against=campaign&other=8')
    await screen.findByRole('table', { name: 'Country' })
    expect(asked().every((each) => each.against !== 'campaign')).toBe(true)
  })
})

describe('where the visits of a piece are', () => {
  it('is gone through reason by reason; the address is followed when somebody asks', async () => {
    const { writes } = show('/campaigns/3/results?code=7')
    fireEvent.click(await screen.findByRole('button', { name: 'Where are my visits?' }))
    const reasons = await screen.findByRole('list', { name: 'Reasons' })
    const sentence = (name: string) =>
      within(reasons)
        .getAllByRole('listitem')
        .find(({ textContent }) => textContent.includes(name))?.textContent
    expect(sentence('The tags are lost')).toContain('(not known)')
    expect(sentence('Too few visitors')).toContain('Only 30 visitors came')
    fireEvent.click(screen.getByRole('button', { name: 'Follow the address now' }))
    await waitFor(() => {
      expect(sentence('The tags are lost')).toContain(
        'A redirect at https://a.example/old?utm_source=pier drops utm_source.',
      )
    })
    expect(writes().map(({ path }) => path)).toContain('/codes/7/checks')
  })
})

describe('what is taken away of a sheet', () => {
  it('is its numbers as a file, for each sheet that has some', async () => {
    const saved: { blob: Blob; name: string }[] = []
    vi.spyOn(URL, 'createObjectURL').mockImplementation((blob) => {
      saved.push({ blob: blob as Blob, name: '' })
      return 'blob:x'
    })
    vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
      const last = saved.at(-1)
      if (last) last.name = this.download
    })
    show('/campaigns/3/results?by=medium&what=leadRate&against=before&days=30')
    const take = async (title: string) => {
      fireEvent.click(await screen.findByRole('button', { name: `Download: ${title}` }))
      fireEvent.click(await screen.findByRole('menuitem', { name: 'Its numbers (CSV)' }))
      await waitFor(() => {
        expect(saved.at(-1)?.name).toMatch(/\.csv$/)
      })
      const { blob, name } = saved.pop() ?? { blob: new Blob(), name: '' }
      return [name, (await blob.text()).split('\r\n')] as const
    }
    const [name, answer] = await take('Leads per scan by medium')
    expect([name, answer[0]]).toEqual([
      'leads-per-scan-by-medium.csv',
      expect.stringContaining('Medium,Leads per scan,From (95 %),To (95 %)'),
    ])
    expect((await take('How far scans got'))[1][1]).toBe('Scanned,40,,,')
    expect((await take('Boats: phones: leads a visitor'))[1][1]).toMatch(/^Long,40,30,4,0\.1333/)
    vi.restoreAllMocks()
  })
})

describe('split tests', () => {
  it('stand with what came of each variant and what may be said by now', async () => {
    show('/campaigns/3/results')
    const table = await screen.findByRole('table', { name: 'Variants of Boats: phones' })
    const [, first] = within(table).getAllByRole('row')
    expect([...(first?.children ?? [])].slice(0, 4).map((cell) => cell.textContent)).toEqual([
      'Long',
      '40',
      '30',
      '4',
    ])
    await screen.findByText(/^Each variant needs [\d,]+ visitors; the fewest so far are 30/)
  })
})
