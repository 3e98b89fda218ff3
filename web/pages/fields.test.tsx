import {
  emptyContent,
  newPart,
  PLAIN_STYLE,
  type PageContent,
  type PageStyle,
  type Part,
  type PartKind,
  type PartOf,
} from '@flimbo/core/pages'
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react'
import { useState } from 'react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { around, startOffice } from '../tests/office.tsx'
import type { Editing } from './FieldInput.tsx'
import { PageForm } from './PageForm.tsx'
import { PartForm } from './PartForm.tsx'
import { StyleForm } from './StyleForm.tsx'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

const editing = (language: string, faults: Readonly<Record<string, string>> = {}): Editing => ({
  language,
  languages: ['de', 'en'],
  faultAt: (path) => faults[path],
  fileOf: () => undefined,
  learn: () => undefined,
})

/** A part in its form, as it is by now. */
function open<K extends PartKind>(
  kind: K,
  given: Partial<PartOf<K>> = {},
  { language = 'de', faults = {} }: { language?: string; faults?: Readonly<Record<string, string>> } = {},
) {
  startOffice(() => ({}))
  const now: { part: Part } = { part: { ...newPart(kind, 'p'), ...given } as Part }
  const did = { move: vi.fn(), duplicate: vi.fn(), remove: vi.fn() }
  function Form() {
    const [part, setPart] = useState(now.part)
    now.part = part
    return (
      <PartForm
        part={part}
        at={1}
        count={3}
        zone="Europe/Berlin"
        editing={editing(language, faults)}
        change={setPart}
        {...did}
      />
    )
  }
  render(<Form />, { wrapper: around })
  // The part is of the kind it was opened with.
  return { part: () => now.part as PartOf<K>, ...did }
}
const type = (label: string | RegExp, value: string) => {
  fireEvent.change(screen.getByLabelText(label), { target: { value } })
}
const press = (name: string | RegExp) => {
  fireEvent.click(screen.getByRole('button', { name }))
}

describe('the form of a part', () => {
  it('edits the words of one language, and shows what is said instead where it has none', () => {
    const { part } = open('heading', { text: { de: 'Gezeiten' } }, { language: 'en' })
    const field = screen.getByLabelText<HTMLInputElement>('Heading')
    expect([field.value, field.placeholder, field.lang]).toEqual(['', 'Gezeiten', 'en'])
    type('Heading', 'Tides')
    expect(part().text).toEqual({ de: 'Gezeiten', en: 'Tides' })
  })

  it('says what is wrong at its field', () => {
    open('link', {}, { faults: { address: 'Give the address it leads to.' } })
    expect(screen.getByLabelText('Leads to').getAttribute('aria-invalid')).toBe('true')
    screen.getByText('Give the address it leads to.')
  })

  it('moves, copies, hides and removes the part', () => {
    const { part, move, duplicate, remove } = open('divider')
    press('Move up')
    press('Move down')
    press('Duplicate')
    press('Remove')
    expect([move.mock.calls, duplicate.mock.calls.length, remove.mock.calls.length]).toEqual([
      [[0], [2]],
      1,
      1,
    ])
    press('Hide')
    expect(part().isHidden).toBe(true)
    screen.getByText('Hidden: nobody is shown it.')
    press('Show')
    expect(part().isHidden).toBe(false)
  })

  it('says whom it is shown to, and shows it to everybody again', () => {
    const { part } = open('divider', { condition: { kind: 'language', in: ['nl'] } })
    screen.getByText(/^Shown to: /)
    press('Show to everybody')
    expect(part().condition).toEqual({ kind: 'all', of: [] })
    screen.getByText('Shown to everybody.')
  })
})

describe('lists within a part', () => {
  it('have lines added, filled, moved and removed', () => {
    const { part } = open('contact')
    press('Add telephone')
    press('Add telephone')
    const group = (n: number) => within(screen.getByRole('group', { name: `telephone ${String(n)}` }))
    fireEvent.change(group(1).getByLabelText('Number'), { target: { value: '+49 1' } })
    fireEvent.change(group(2).getByLabelText('Number'), { target: { value: '+49 2' } })
    press('Move telephone 2 up')
    expect(part().phones.map(({ number }) => number)).toEqual(['+49 2', '+49 1'])
    press('Remove telephone 1')
    expect(part().phones.map(({ number }) => number)).toEqual(['+49 1'])
  })

  it('stand in lists', () => {
    const { part } = open('prices')
    press('Add section')
    press('Add line')
    type('Price', '6.50')
    type('Name', 'Soup')
    expect(part().sections).toEqual([
      { title: {}, items: [{ name: { de: 'Soup' }, note: {}, price: '6.50' }] },
    ])
  })

  it('end where there are enough', () => {
    const sites = Array.from({ length: 12 }, (_each, i) => ({ name: String(i), address: '' }))
    open('contact', { sites })
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Add address' }).disabled).toBe(true)
  })
})

describe('a place on earth', () => {
  it('is taken as coordinates are copied from a map, and forgotten where the field is emptied', () => {
    const { part } = open('place')
    type('Latitude, longitude', '53.5501, 7.2034')
    expect(part().point).toEqual({ latitude: 53.5501, longitude: 7.2034 })
    type('Latitude, longitude', '53.55')
    screen.getByText(/Write two numbers of degrees/)
    expect(part().point).toEqual({ latitude: 53.5501, longitude: 7.2034 })
    type('Latitude, longitude', '91, 7')
    expect(part().point?.latitude).toBe(53.5501)
    type('Latitude, longitude', '')
    expect(part().point).toBeNull()
  })
})

describe('opening hours', () => {
  it('are typed day by day, and Monday’s stand for all until Friday', () => {
    const { part } = open('hours')
    type('Monday', '9-12:30, 14-18')
    press('Use Monday’s hours until Friday')
    const spans = part().hours.week.map((slots) => slots.length)
    expect(spans).toEqual([2, 2, 2, 2, 2, 0, 0])
    type('Sunday', 'noon')
    screen.getByText(/Write spans such as/)
    expect(part().hours.week[6]).toEqual([])
  })

  it('are otherwise on some days', () => {
    const { part } = open('hours')
    press('Add exception')
    fireEvent.change(screen.getByRole('textbox', { name: 'Hours' }), { target: { value: 'closed' } })
    type('Note', 'Staff outing')
    expect(part().hours.except).toMatchObject([{ slots: [], note: 'Staff outing' }])
    press('Remove exception 1')
    expect(part().hours.except).toEqual([])
  })
})

describe('the form of a page', () => {
  function openPage(first: PageContent) {
    startOffice(() => ({}))
    const now = { content: first }
    const opened = vi.fn()
    function Form() {
      const [content, setContent] = useState(first)
      now.content = content
      return (
        <PageForm content={content} editing={editing('de')} styles={[]} change={setContent} open={opened} />
      )
    }
    render(<Form />, { wrapper: around })
    return { content: () => now.content, opened }
  }
  const two: PageContent = {
    ...emptyContent('de', 'Europe/Berlin'),
    languages: ['de', 'en'],
    title: { de: 'Halt 1' },
    parts: [{ ...newPart('heading', 'h'), text: { de: 'Halt 1' } }],
  }

  it('lists what each language lacks, and opens it', () => {
    const { opened } = openPage(two)
    expect(within(screen.getByRole('list', { name: 'Missing texts' })).getAllByRole('listitem')).toHaveLength(
      2,
    )
    press('2 texts missing')
    expect(opened).toHaveBeenCalledWith('', 'en')
  })

  it('takes another language as its tag is spelt, and none that is no tag', () => {
    const { content } = openPage(two)
    const add = (tag: string) => {
      const field = screen.getByLabelText('Add language')
      fireEvent.change(field, { target: { value: tag } })
      fireEvent.keyDown(field, { key: 'Enter' })
    }
    add('gsw-ch')
    expect(content().languages).toEqual(['de', 'en', 'gsw-CH'])
    add('zz-a-1-1-x')
    add('EN-')
    expect(content().languages).toEqual(['de', 'en', 'gsw-CH'])
  })

  it('puts another language first, and keeps the last', () => {
    const { content } = openPage(two)
    press('Make first')
    expect(content().languages).toEqual(['en', 'de'])
    press('Remove German')
    expect(content().languages).toEqual(['en'])
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Remove English' }).disabled).toBe(true)
  })
})

describe('the form of a style', () => {
  function openStyle(first: PageStyle = PLAIN_STYLE) {
    startOffice(() => ({ rows: [] }))
    const now = { style: first }
    function Form() {
      const [style, setStyle] = useState(first)
      now.style = style
      return <StyleForm style={style} fileOf={() => undefined} learn={() => undefined} change={setStyle} />
    }
    render(<Form />, { wrapper: around })
    return () => now.style
  }
  const light = () => within(screen.getByRole('group', { name: 'Light' }))

  it('says at once what could not be read, and takes colours as they are typed', () => {
    const style = openStyle()
    const ink = light().getByRole('textbox', { name: /^Text, contrast/ })
    fireEvent.change(ink, { target: { value: 'dddddd' } })
    expect(style().light.ink).toBe('#DDDDDD')
    light().getByText(/people need 4.5 : 1/)
    fireEvent.change(light().getByRole('textbox', { name: /^Text, contrast/ }), { target: { value: '#12' } })
    light().getByText(/Write six hexadecimal digits/)
    expect(style().light.ink).toBe('#DDDDDD')
  })

  it('shows the colours of those schemes alone that are used', () => {
    openStyle({ ...PLAIN_STYLE, scheme: 'dark' })
    expect(screen.queryByRole('group', { name: 'Light' })).toBeNull()
    screen.getByRole('group', { name: 'Dark' })
  })

  it('takes corners and angles that there are', () => {
    const style = openStyle({
      ...PLAIN_STYLE,
      scheme: 'light',
      light: {
        ...PLAIN_STYLE.light,
        ground: { kind: 'gradient', from: '#FFFFFF', upTo: '#FAF8F3', angle: 180 },
      },
    })
    type('Corners (px)', '14')
    type('Corners (px)', '99')
    type('Angle (degrees)', '90')
    type('Angle (degrees)', '400')
    expect([style().corner, style().light.ground]).toMatchObject([14, { angle: 90 }])
  })
})
