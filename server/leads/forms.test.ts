import { existsSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { Parser } from 'htmlparser2'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { newQuestion, type Question, type QuestionKind, type QuestionOf } from '@flimbo/core/forms'
import { newPart, type PartOf } from '@flimbo/core/pages'
import { PHONE, runningFlimbo, type Running } from '../tests/running.ts'

let flimbo: Running
let campaignId: number
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaignId = (await flimbo.campaign()).id
})
afterAll(() => flimbo.close())

const en = (text: string) => ({ en: text })
const ask = <K extends QuestionKind>(kind: K, id: string, more: Partial<QuestionOf<K>> = {}): Question =>
  ({ ...newQuestion(kind, id), label: en(`Q ${id}`), ...more }) as unknown as Question
const chosen = (question: string, ...of: string[]) => ({
  match: 'all' as const,
  tests: [{ question, is: 'chosen' as const, of }],
})

let serial = 0
/** A short link that shows a form. */
async function form(questions: Question[], more: Partial<PartOf<'form'>> = {}): Promise<string> {
  const slug = `form-${String(++serial)}`
  const part = { ...newPart('form', 'f'), questions, ...more }
  const page = await flimbo.page(campaignId, slug, [part])
  await flimbo.codeTo(campaignId, page.id, slug)
  return `/${slug}`
}

interface Seen {
  readonly status: number
  readonly location: string
  readonly html: string
  readonly action: string
  /** Names and values of the form as a browser would send them. */
  readonly fields: [string, string][]
  readonly hidden: string[]
}
let visitor = 0
const headers = () => ({
  'user-agent': PHONE,
  'x-forwarded-for': `31.132.${String(visitor >> 8)}.${String(visitor & 255)}`,
})
const url = (path: string) => `http://127.0.0.1:${String(flimbo.ports.door)}${path}`

/** Reads a page as a phone without script does. */
async function seen(answer: Response): Promise<Seen> {
  const html = await answer.text()
  let action = ''
  const fields: [string, string][] = []
  const hidden: string[] = []
  const parser = new Parser({
    onopentag(name, given) {
      if (name === 'form') action = given.action ?? ''
      if (name === 'input' && given.type === 'hidden') fields.push([given.name ?? '', given.value ?? ''])
      if (given['data-q'] !== undefined && given.hidden !== undefined) hidden.push(given['data-q'])
    },
  })
  parser.end(html)
  return {
    status: answer.status,
    location: answer.headers.get('location') ?? '',
    html,
    action,
    fields,
    hidden,
  }
}
const open = async (path: string) => seen(await fetch(url(path), { headers: headers(), redirect: 'manual' }))
/** So long somebody looks at a form before they send it. */
const read = () => new Promise((resolve) => setTimeout(resolve, 1600))
async function send(page: Seen, answers: Record<string, string | string[]>, act = 'send'): Promise<Seen> {
  const body = new URLSearchParams(page.fields)
  for (const [name, value] of Object.entries(answers))
    for (const each of [value].flat()) body.append(`q.${name}`, each)
  body.append('act', act)
  return seen(await fetch(url(page.action), { method: 'POST', body, headers: headers(), redirect: 'manual' }))
}
interface Stored {
  answers: string
  consents: string
  held: string
  email: string
  phone: string
  city: string
  scanId: number
  utm: string
}
const leads = (slug: string): Stored[] =>
  flimbo.rows<Stored>(
    `SELECT l.* FROM leads l JOIN pages p ON p.id = l.pageId WHERE p.name = '${slug.slice(1)}' ORDER BY l.id`,
  )
beforeEach(() => {
  visitor++
})

describe('a form that is sent without script', () => {
  it('is stored with its scan, what was agreed to, and thanked for; reloading sends nothing again', async () => {
    const path = await form(
      [
        ask('short', 'name', { isRequired: true, name: 'Name' }),
        ask('mail', 'mail'),
        ask('phone', 'phone', { country: 'DE' }),
        ask('consent', 'news', {
          consent: { en: [{ kind: 'paragraph', runs: [{ text: 'Send me news.' }] }] },
        }),
      ],
      { thanks: en('Dear {name}, see you soon.') },
    )
    const page = await open(path)
    await read()
    const answers = { name: ' Ada <b> ', mail: 'Ada@Saltmarsh.EXAMPLE', phone: '04931 5550142', news: 'yes' }
    const sent = await send(page, answers)
    expect(sent.status).toBe(303)
    const thanks = await open(sent.location)
    expect(thanks.html).toContain('Dear Ada &lt;b&gt;, see you soon.')
    expect((await send(page, answers)).location).toBe(sent.location)
    const [lead, ...more] = leads(path)
    expect(more).toEqual([])
    expect(JSON.parse(lead?.answers ?? '')).toEqual({
      name: 'Ada <b>',
      mail: 'Ada@saltmarsh.example',
      phone: '+4949315550142',
      news: true,
    })
    expect(lead).toMatchObject({ email: 'ada@saltmarsh.example', phone: '+4949315550142', held: '' })
    expect(JSON.parse(lead?.consents ?? '')).toEqual([
      { question: 'news', words: 'Send me news.', language: 'en' },
    ])
    const scans = flimbo.rows<{ id: number }>(`SELECT id FROM scans WHERE id = ${String(lead?.scanId)}`)
    expect(scans).toHaveLength(1)
  })

  it('comes back with what was typed and what is wrong, and stores nothing until it is right', async () => {
    const path = await form([
      ask('short', 'name', { isRequired: true }),
      ask('mail', 'mail'),
      ask('number', 'n', { least: 1 }),
    ])
    const page = await open(path)
    await read()
    const again = await send(page, { mail: 'ada', n: '0' })
    expect(again.status).toBe(200)
    for (const words of [
      'Please answer this question.',
      'Write a whole mail address',
      'Not less than 1.',
      'value="ada"',
      'aria-invalid="true"',
    ])
      expect(again.html).toContain(words)
    expect(leads(path)).toEqual([])
    // Whoever corrects an answer has read the form already.
    expect((await send(again, { name: 'Ada', n: '2' })).status).toBe(303)
    expect(leads(path).map(({ held }) => held)).toEqual([''])
  })

  it('asks what the answers lead to before it is sent, and forgets what they lead away from', async () => {
    const path = await form([
      ask('yesno', 'boat', { isRequired: true }),
      ask('short', 'which', { isRequired: true, branch: chosen('boat', 'yes') }),
    ])
    const page = await open(path)
    expect(page.hidden).toEqual(['which'])
    await read()
    const more = await send(page, { boat: 'yes' })
    expect(more.html).toContain('Your answers lead to more questions.')
    expect(more.hidden).toEqual([])
    expect((await send(more, { boat: 'yes', which: 'Lark' })).status).toBe(303)
    expect((await send(more, { boat: 'no', which: 'Lark' })).status).toBe(303)
    expect(leads(path).map(({ answers }) => JSON.parse(answers) as unknown)).toEqual([
      { boat: true, which: 'Lark' },
      { boat: false },
    ])
  })

  it('goes section by section, forward and back, and loses nothing on the way', async () => {
    const section = (id: string, branch?: ReturnType<typeof chosen>): Question => ({
      ...newQuestion('section', id),
      title: en(`Section ${id}`),
      ...(branch ? { branch } : {}),
    })
    const path = await form(
      [
        section('one'),
        ask('yesno', 'boat', { isRequired: true }),
        section('two', chosen('boat', 'yes')),
        ask('short', 'which', { isRequired: true }),
        section('three'),
        ask('long', 'note'),
      ],
      { steps: 'steps' },
    )
    const first = await open(path)
    expect(first.html).toContain('Step 1 of 2')
    await read()
    const second = await send(first, { boat: 'yes' }, 'next')
    expect([second.html.includes('Section two'), second.html.includes('Step 2 of 3')]).toEqual([true, true])
    expect((await send(second, {}, 'next')).html).toContain('Please answer this question.')
    const third = await send(second, { which: 'Lark' }, 'next')
    const back = await send(third, { note: 'Hello' }, 'back')
    expect([back.html.includes('Section two'), back.html.includes('value="Lark"')]).toEqual([true, true])
    const last = await send(back, { which: 'Tern' }, 'next')
    expect(last.html).toContain('Hello')
    expect((await send(last, { note: 'Hello again' }, 'send')).status).toBe(303)
    expect(JSON.parse(leads(path)[0]?.answers ?? '')).toEqual({
      boat: true,
      which: 'Tern',
      note: 'Hello again',
    })
  })

  it('takes a file, tells what it is by its content, and keeps it while something else is wrong', async () => {
    const path = await form([
      ask('file', 'photo', { takes: 'pictures' }),
      ask('short', 'name', { isRequired: true }),
    ])
    const page = await open(path)
    await read()
    const png = Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      'base64',
    )
    const sendFile = async (on: Seen, bytes: Buffer, name: string, more: Record<string, string>) => {
      const body = new FormData()
      for (const [field, value] of [...on.fields, ...Object.entries(more), ['act', 'send'] as const])
        body.append(field, value)
      body.append('q.photo', new Blob([new Uint8Array(bytes)]), name)
      return seen(
        await fetch(url(on.action), { method: 'POST', body, headers: headers(), redirect: 'manual' }),
      )
    }
    const wrong = await sendFile(page, Buffer.from('MZ not a picture at all'), 'a.png', { 'q.name': 'Ada' })
    expect(wrong.html).toContain('Files of this kind are not taken.')
    // Larger than any that is taken: it is said, and never left out unsaid.
    const large = await sendFile(page, Buffer.alloc(10_500_000), 'a.png', { 'q.name': 'Ada' })
    expect(large.html).toContain('The file is larger than 10 MB.')
    expect(leads(path)).toEqual([])
    const kept = await sendFile(page, png, '../../etc/boat.png', {})
    expect(kept.html).toContain('boat.png')
    expect((await send(kept, { name: 'Ada' })).status).toBe(303)
    const { photo } = JSON.parse(leads(path)[0]?.answers ?? '') as { photo: { name: string; type: string } }
    expect(photo).toMatchObject({ name: 'boat.png', type: 'image/png', bytes: png.length })
  })

  it('speaks the visitor’s language, right to left too', async () => {
    const path = await form([ask('short', 'name', { isRequired: true })], { keptMonths: 6 })
    const page = await open(path)
    expect(page.html).toContain('Kept for: 6 months')
    const arabic = await fetch(url(path), { headers: { ...headers(), 'accept-language': 'ar' } })
    expect(await arabic.text()).toContain('Send')
  })
})

describe('how many answers a form takes', () => {
  it('is exact, however many are sent at once', async () => {
    const path = await form([ask('short', 'name')], { limit: 7 })
    const pages = await Promise.all(Array.from({ length: 100 }, () => open(path)))
    await read()
    const answers = await Promise.all(
      pages.map((page, i) => {
        visitor++
        return send(page, { name: String(i) })
      }),
    )
    expect(answers.filter(({ status }) => status === 303)).toHaveLength(7)
    expect(answers.filter(({ html }) => html.includes('No more answers are taken here.'))).toHaveLength(93)
    expect(leads(path)).toHaveLength(7)
    expect((await open(path)).html).toContain('No more answers are taken here.')
  })

  it('is one a visitor a day where it says so', async () => {
    const path = await form([ask('short', 'name')], { isOnceADay: true })
    const [first, second] = [await open(path), await open(path)]
    await read()
    expect((await send(first, { name: 'a' })).status).toBe(303)
    expect((await send(second, { name: 'b' })).html).toContain('You have answered today already.')
    visitor++
    expect((await send(second, { name: 'c' })).status).toBe(303)
  })

  it('is none before it opens and after it closed, each said in its own words', async () => {
    const early = await form([ask('short', 'name')], {
      opens: '2199-01-01T00:00',
      before: en('From spring on.'),
    })
    const closed = await form([ask('short', 'name')], { closes: '2020-01-01T00:00' })
    expect((await open(early)).html).toContain('From spring on.')
    expect((await open(closed)).html).toContain('This form is closed.')
  })
})

describe('what no person sends', () => {
  it('is held, not counted and not thrown away: the trap, what comes too quickly, and too often', async () => {
    const path = await form([ask('short', 'name')], { limit: 100 })
    const page = await open(path)
    expect((await send(page, { name: 'quick' })).status).toBe(303)
    await read()
    const body = new URLSearchParams([
      ...page.fields,
      ['website', 'http://spam.example'],
      ['q.name', 'trap'],
      ['act', 'send'],
    ])
    await fetch(url(page.action), { method: 'POST', body, headers: headers(), redirect: 'manual' })
    for (let i = 0; i < 9; i++) await send(page, { name: `many ${String(i)}` })
    const held = leads(path).map((lead) => lead.held)
    expect([held.includes('quick'), held.includes('trap'), held.includes('many')]).toEqual([true, true, true])
    const [count] = flimbo.rows<{ answers: number }>(
      'SELECT answers FROM form_counts ORDER BY pageId DESC LIMIT 1',
    )
    expect(count?.answers).toBe(held.filter((each) => each === '').length)
  })

  it('is asked again where its key is made up, of another form, or missing', async () => {
    const [path, other] = [await form([ask('short', 'name')]), await form([ask('short', 'name')])]
    const [page, theirs] = [await open(path), await open(other)]
    const keyOf = (of: Seen) => of.fields.find(([name]) => name === 'key')?.[1] ?? ''
    for (const key of ['', 'x.y.z', keyOf(theirs), `${keyOf(page)}x`]) {
      const fields = page.fields.map(([name, value]): [string, string] => [
        name,
        name === 'key' ? key : value,
      ])
      const again = await send({ ...page, fields }, { name: 'Ada' })
      expect(again.html).toContain('This form was open for a long time.')
      expect(again.html).toContain('value="Ada"')
    }
    expect(leads(path)).toEqual([])
  })

  it('keeps no file that is not asked for, and no more of them than a house full of people sends', async () => {
    const path = await form([ask('short', 'name', { isRequired: true })])
    const page = await open(path)
    const kept = () => (existsSync(directory) ? readdirSync(directory).length : 0)
    const directory = join(flimbo.config.dataDir, 'answers')
    const before = kept()
    const statuses: number[] = []
    for (let i = 0; i < 70; i++) {
      const body = new FormData()
      for (const [field, value] of page.fields) body.append(field, value)
      body.append('q.name', new Blob(['x'.repeat(1000)]), 'a.png')
      const answer = await fetch(url(page.action), {
        method: 'POST',
        body,
        headers: headers(),
        redirect: 'manual',
      })
      statuses.push(answer.status)
      await answer.text()
    }
    expect(kept()).toBe(before)
    expect([statuses[0], statuses.at(-1)]).toEqual([200, 503])
  })

  it('harms nobody: bodies of every kind get an answer, and nothing is stored of them', async () => {
    const path = await form([ask('short', 'name', { isRequired: true })])
    const page = await open(path)
    const bodies: [string, string][] = [
      ['application/json', '{"q.name": 1}'],
      ['multipart/form-data', 'no boundary'],
      ['multipart/form-data; boundary=x', '--x\r\nbroken'],
      ['application/x-www-form-urlencoded', '%%%&q.name&=&__proto__=1'],
      ['', ''],
    ]
    for (const [type, body] of bodies) {
      const answer = await fetch(url(page.action), {
        method: 'POST',
        body,
        headers: { ...headers(), 'content-type': type },
        redirect: 'manual',
      })
      expect(answer.status).toBeLessThan(500)
    }
    const long = await send(page, { name: 'x'.repeat(60_000) })
    expect(long.html).toContain('Too long: 60,000 of 200.')
    expect(leads(path)).toEqual([])
    expect((await open(`${page.action.replace('/f/f', '/f/none')}`)).status).toBe(303)
  })
})

describe('where an answer comes from', () => {
  it('is kept with it: values of the address and of the piece, and conditions may ask for them', async () => {
    const path = await form([
      { ...newQuestion('hidden', 'from'), name: 'From', from: 'query', parameter: 'table' },
      { ...newQuestion('hidden', 'piece'), name: 'Piece', from: 'piece' },
      ask('short', 'seat', {
        isRequired: true,
        branch: { match: 'all', tests: [{ question: 'from', is: 'answered' }] },
      }),
    ])
    const [plain, atTable] = [await open(path), await open(`${path}?table=12`)]
    expect([plain.hidden, atTable.hidden]).toEqual([['seat'], []])
    // What is hidden cannot be sent by anybody.
    await read()
    expect((await send(plain, { from: 'forged' })).status).toBe(303)
    expect((await send(atTable, { seat: '3' })).status).toBe(303)
    const stored = leads(path).map(({ answers }) => JSON.parse(answers) as Record<string, string>)
    expect(stored.map(({ from, seat }) => [from, seat])).toEqual([
      [undefined, undefined],
      ['12', '3'],
    ])
    expect(stored.every(({ piece }) => piece !== '')).toBe(true)
  })

  it('is told to the script of a form, with what is wrong in words, and stores nothing', async () => {
    const path = await form([
      ask('yesno', 'boat'),
      ask('mail', 'mail', { isRequired: true, branch: chosen('boat', 'yes') }),
    ])
    const page = await open(path)
    const look = async (answers: Record<string, string>) => {
      const looked = await send(page, answers, 'look')
      return JSON.parse(looked.html) as { shown: string[]; faults: Record<string, string> }
    }
    expect(await look({})).toEqual({ shown: ['boat'], faults: {} })
    expect(await look({ boat: 'yes' })).toEqual({ shown: ['boat', 'mail'], faults: {} })
    expect((await look({ boat: 'yes', mail: 'ada' })).faults.mail).toContain('Write a whole mail address')
    expect(leads(path)).toEqual([])
  })

  it('leads on to another address where the form says so, tagged as the piece is', async () => {
    const path = await form([ask('short', 'name')], {
      after: 'address',
      thanksAddress: 'https://saltmarsh.example/thanks',
    })
    const page = await open(path)
    await read()
    const { status, location } = await send(page, { name: 'Ada' })
    expect([status, location.startsWith('https://saltmarsh.example/thanks?utm_source=')]).toEqual([303, true])
  })
  it('leads on to another page where the form says so, which is then not deleted', async () => {
    const next = await flimbo.page(campaignId, 'Timetable', [
      { ...newPart('heading', 'h'), text: en('All boats') },
    ])
    const path = await form([ask('short', 'name')], { after: 'page', thanksPage: next.id })
    const page = await open(path)
    await read()
    const { status, location } = await send(page, { name: 'Ada' })
    expect(status).toBe(303)
    expect((await open(location)).html).toContain('All boats')
    const refused = await flimbo.refused('DELETE', `/api/pages/${String(next.id)}`)
    expect(refused.detail).toMatch(/leads to “Timetable”\. Lead it elsewhere first\.$/)

    const nowhere = {
      ...newPart('form', 'f'),
      questions: [ask('short', 'name')],
      after: 'page',
      thanksPage: 999_999,
    }
    const made = await flimbo.ask<{ id: number }>('POST', '/api/pages', { campaignId, name: 'Nowhere' })
    const content = { ...next.live, parts: [nowhere] }
    const kept = await flimbo.refused('PATCH', `/api/pages/${String(made.body.id)}/draft`, {
      draftVersion: 0,
      content,
    })
    expect(kept.status).toBe(422)
  })
})
