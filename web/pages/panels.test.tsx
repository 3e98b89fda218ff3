import { newPart, type Page } from '@flimbo/core/pages'
import { readTable } from '@flimbo/core/plan'
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { around, refusal, startOffice, type Asked } from '../tests/office.tsx'
import { FileField } from './FileField.tsx'
import { NewPage } from './NewPage.tsx'
import { PageHistory } from './PageHistory.tsx'
import { PageResults } from './PageResults.tsx'
import { PartList } from './PartList.tsx'
import { RenamePage } from './RenamePage.tsx'
import { TeamImport } from './TeamImport.tsx'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
  vi.restoreAllMocks()
})

const page = (more: Partial<Page> = {}): Page => ({
  id: 7,
  campaignId: 1,
  name: 'Stop 1',
  version: 3,
  revisionId: 11,
  createdAt: 0,
  changedAt: 0,
  live: null,
  draft: null,
  draftVersion: 2,
  routes: [],
  files: [],
  ...more,
})
const content = {
  languages: ['en'],
  zone: 'UTC',
  title: {},
  description: {},
  picture: {},
  isFileItself: false,
  styleId: null,
  parts: [{ ...newPart('heading', 'h'), text: { en: 'Stop 1' } }, newPart('divider', 'd')],
}
const press = (name: string | RegExp) => {
  fireEvent.click(screen.getByRole('button', { name }))
}
const type = (label: string | RegExp, value: string) => {
  fireEvent.change(screen.getByLabelText(label), { target: { value } })
}

describe('a new page', () => {
  it('is made of what was chosen to begin with', async () => {
    const { writes } = startOffice(() => page())
    const made = vi.fn()
    render(<NewPage campaignId={1} made={made} cancel={vi.fn()} />, { wrapper: around })
    type('Name', 'Menu of the day')
    press(/^Menu/)
    expect(screen.getByRole('button', { name: /^Menu/ }).getAttribute('aria-pressed')).toBe('true')
    press('Make page')
    await waitFor(() => {
      expect(made).toHaveBeenCalled()
    })
    expect(writes()[0]?.body).toEqual({
      campaignId: 1,
      name: 'Menu of the day',
      start: 'menu',
      language: 'en',
    })
  })

  it('that could not be made says why, and keeps what was typed', async () => {
    startOffice(() => refusal('Give a name.'))
    render(<NewPage campaignId={1} made={vi.fn()} cancel={vi.fn()} />, { wrapper: around })
    type('Name', ' ')
    press('Empty page Nothing on it yet')
    press('Make page')
    await screen.findByText('Give a name.')
    expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe(' ')
  })
})

describe('the name of a page', () => {
  it('is saved from the version it was read in', async () => {
    const { writes } = startOffice(() => page())
    const done = vi.fn()
    render(<RenamePage page={page()} done={done} />, { wrapper: around })
    type('Name', 'Stop one')
    press('Save')
    await waitFor(() => {
      expect(done).toHaveBeenCalled()
    })
    expect(writes()[0]).toMatchObject({
      method: 'PATCH',
      path: '/pages/7',
      body: { version: 3, name: 'Stop one' },
    })
  })
})

describe('the history of a page', () => {
  const rows = [
    { number: 2, at: 0, by: 'Anna', changes: ['changed the heading “Stop 1”', 'moved parts'] },
    { number: 1, at: 0, by: 'Jonas', changes: ['published it for the first time'] },
  ]

  it('says what changed, and goes back to what was', async () => {
    const { writes } = startOffice(({ method }: Asked) => (method === 'GET' ? { rows } : page()))
    render(<PageHistory page={page()} zone="UTC" />, { wrapper: around })
    await screen.findByText('changed the heading “Stop 1”; moved parts', { exact: false })
    expect(screen.queryByRole('button', { name: 'Go back to 2' })).toBeNull()
    press('Go back to 1')
    await waitFor(() => {
      expect(writes()[0]?.body).toEqual({ version: 3, number: 1 })
    })
  })

  it('goes back nowhere while something is prepared', async () => {
    startOffice(() => ({ rows }))
    render(<PageHistory page={page({ draft: content })} zone="UTC" />, { wrapper: around })
    await screen.findByText(/publish or discard what is prepared first/)
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Go back to 1' }).disabled).toBe(true)
  })
})

describe('the results of a page', () => {
  it('are of all who opened it', async () => {
    const tallies = [
      { kind: 'opened', part: '', item: '', scans: 200 },
      { kind: 'link', part: 'h', item: 'l', scans: 50 },
      { kind: 'stayed', part: '', item: '60', scans: 20 },
    ]
    startOffice(() => ({ zone: 'UTC', from: '2026-07-01', to: '2026-07-30', tallies }))
    render(<PageResults page={page()} content={content} zone="UTC" />, { wrapper: around })
    const table = await screen.findByRole('table', { name: 'What was done on the page' })
    const cells = within(table)
      .getAllByRole('row')
      .slice(1)
      .map((row) =>
        within(row)
          .getAllByRole('cell')
          .map(({ textContent }) => textContent),
      )
    expect(cells).toEqual([
      ['Heading: Stop 1', 'Link followed', '50', '25%'],
      ['Page', 'Seen for 1 min or longer', '20', '10%'],
    ])
  })

  it('lead from each figure to its rows, and to those as a file', async () => {
    const row = {
      ...{ id: 1, at: 0, scanId: 9, codeId: 2, codeName: 'Pier', routeId: 3, revision: 4, pageId: 7 },
      ...{ pageName: 'Stop 1', kind: 'link', part: 'h', partName: 'Heading: Stop 1', item: 'l', apart: null },
      ...{ country: 'DE', region: '', city: 'Kiel', device: 'phone', language: 'de' },
    }
    const { asked, writes } = startOffice(({ path, method }) => {
      if (method === 'POST') return { id: 5 }
      if (path.startsWith('/page-event-rows')) return { rows: [row], total: 1, page: 0, pageSize: 25 }
      const tallies = [
        { kind: 'opened', part: '', item: '', scans: 2 },
        { kind: 'link', part: 'h', item: 'l', scans: 1 },
      ]
      return { zone: 'UTC', from: '2026-07-01', to: '2026-07-30', tallies }
    })
    render(<PageResults page={page()} content={content} zone="UTC" />, { wrapper: around })
    fireEvent.click(await screen.findByRole('button', { name: /^1, Heading: Stop 1, Link followed/ }))
    await screen.findByText('Only: Heading: Stop 1, Link followed')
    const wanted = { pageId: '7', kind: 'link', part: 'h', item: 'l' }
    const query = new URLSearchParams(asked.at(-1)?.path.split('?')[1])
    expect(Object.fromEntries(query)).toMatchObject(wanted)
    press('Download these rows as CSV')
    await waitFor(() => {
      expect(writes()[0]?.body).toMatchObject({ ...wanted, pageId: 7 })
    })
    press('Hide the rows')
    expect(screen.queryByRole('grid')).toBeNull()
  })

  it('are a file that tables read', async () => {
    const tallies = [
      { kind: 'opened', part: '', item: '', scans: 2 },
      { kind: 'link', part: 'h', item: 'l', scans: 1 },
    ]
    startOffice(() => ({ zone: 'UTC', from: '2026-07-01', to: '2026-07-30', tallies }))
    const made: Blob[] = []
    vi.spyOn(URL, 'createObjectURL').mockImplementation((file) => `blob:${String(made.push(file as Blob))}`)
    vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(() => undefined)
    const heading = { ...newPart('heading', 'h'), text: { en: 'Sun, “sea” and "sand"' } }
    render(<PageResults page={page()} content={{ ...content, parts: [heading] }} zone="UTC" />, {
      wrapper: around,
    })
    fireEvent.click(await screen.findByRole('button', { name: 'Download as CSV' }))
    const rows = [
      ['part', 'what', 'scans'],
      ['', 'Opened', '2'],
    ]
    expect(readTable((await made[0]?.text()) ?? '', ',').rows).toEqual([
      ...rows,
      ['Heading: Sun, “sea” and "sand"', 'Link followed', '1'],
    ])
  })

  it('say that nobody opened it', async () => {
    startOffice(() => ({ zone: 'UTC', from: '2026-07-01', to: '2026-07-30', tallies: [] }))
    render(<PageResults page={page()} content={content} zone="UTC" />, { wrapper: around })
    await screen.findByText(/Nobody opened this page in these days/)
  })
})

describe('the list of parts', () => {
  it('says which are hidden and which are not finished, and adds another', () => {
    const [choose, add] = [vi.fn(), vi.fn()]
    const parts = content.parts.map((part, i) => ({ ...part, isHidden: i === 1 }))
    render(
      <PartList
        content={{ ...content, parts }}
        language="en"
        chosen="h"
        choose={choose}
        move={vi.fn()}
        add={add}
        faulty={new Set(['h'])}
      />,
    )
    const rows = within(screen.getByRole('list', { name: 'Parts' })).getAllByRole('listitem')
    expect(
      rows.map((row) => [
        within(row).queryByTitle('Hidden') !== null,
        within(row).queryByTitle('Not finished') !== null,
      ]),
    ).toEqual([
      [false, true],
      [true, false],
    ])
    press(/^Divider/)
    expect(choose).toHaveBeenCalledWith('d')
    press('Add part')
    fireEvent.click(screen.getByRole('menuitem', { name: 'Opening hours' }))
    expect(add).toHaveBeenCalledWith('hours')
  })
})

describe('a team from a file', () => {
  const choose = (text: string) => {
    const file = new File([text], 'team.csv', { type: 'text/csv' })
    fireEvent.change(screen.getByLabelText('File of the team'), { target: { files: [file] } })
  }

  it('is read, shown, and made with what every code needs', async () => {
    const { writes } = startOffice(() => ({ pages: 2, codes: 2 }))
    const done = vi.fn()
    render(<TeamImport campaignId={1} done={done} cancel={vi.fn()} />, { wrapper: around })
    choose('given name,role,shoe size\nAnna,Captain,39\nBo,Mate,44\n')
    const table = await screen.findByRole('table', { name: 'People in the file' })
    expect(within(table).getAllByRole('row')).toHaveLength(3)
    screen.getByText(/no field has such a name: shoe size/)
    press('Make 2 cards and codes')
    await screen.findByText('Give a medium.')
    type('Medium', 'print')
    type('Source', 'crew-cards')
    type('Website', 'saltmarsh.example')
    press('Make 2 cards and codes')
    await waitFor(() => {
      expect(done).toHaveBeenCalled()
    })
    expect(writes()[0]?.body).toMatchObject({ medium: 'print', destination: 'https://saltmarsh.example' })
  })

  it('is not made while a line is wrong', async () => {
    startOffice(() => ({}))
    render(<TeamImport campaignId={1} done={vi.fn()} cancel={vi.fn()} />, { wrapper: around })
    choose('given name,telephone\nAnna,12\n')
    await screen.findByText(/Line 2: Begin with \+/)
    expect(screen.getByRole<HTMLButtonElement>('button', { name: /^Make 1 card/ }).disabled).toBe(true)
    choose('given name\n"Anna')
    await screen.findByText(/never closed/)
  })
})

describe('a file of a part', () => {
  it('is what another language has, as long as this one has none', () => {
    startOffice(() => ({ rows: [] }))
    const stored = {
      sum: 'a'.repeat(64),
      key: 'A'.repeat(21),
      name: 'stop.mp3',
      type: 'audio/mpeg',
      bytes: 1,
      width: 0,
      height: 0,
      widths: [],
      createdAt: 0,
      by: 'Anna',
      uses: [],
    } as const
    const take = vi.fn()
    const field = (own: boolean) => (
      <FileField
        label="Recording"
        takes="audio"
        file={own ? { ...stored, widths: [], uses: [] } : undefined}
        instead={{ ...stored, widths: [], uses: [] }}
        take={take}
        fault={own ? undefined : 'Choose a recording.'}
      />
    )
    const { rerender } = render(field(false), { wrapper: around })
    screen.getByText('stop.mp3 (from another language)')
    screen.getByText('Choose a recording.')
    rerender(field(true))
    press('Remove recording')
    expect(take).toHaveBeenCalledWith(null)
  })
})
