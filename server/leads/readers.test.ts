import { mkdtempSync, readdirSync, readFileSync, rmSync, utimesSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { answerFiles, type AnswerFiles } from './answerFiles.ts'
import { readMail, readPhone } from './readers.ts'

// E.164 (ITU-T): + and at most fifteen digits, the country's number first. How numbers are written at home is from memory,
// and read by libphonenumber-js.
describe('a telephone number in an answer', () => {
  it.each<[string, string, string | null]>([
    ['+49 4931 555 0142', '', '+4949315550142'],
    ['04931 555 0142', 'DE', '+4949315550142'],
    ['(04931) 555-0142', 'DE', '+4949315550142'],
    ['0049 4931 5550142', 'DE', '+4949315550142'],
    ['020 7946 0958', 'GB', '+442079460958'],
    ['050 123 4567', 'NL', '+31501234567'],
    ['04931 555 0142', '', null],
    ['04931 555 0142', 'XX', null],
    ['+49', '', null],
    ['12', 'DE', null],
    ['+1234567890123456', '', null],
    ['by boat', 'DE', null],
    ['', 'DE', null],
  ])('%s, from %s', (text, country, number) => {
    expect(readPhone(text, country)).toBe(number)
  })
})

// RFC 5321, section 2.4: the host is case-insensitive, what is before it may not be.
describe('a mail address in an answer', () => {
  it.each<[string, string | null]>([
    ['ada@saltmarsh.example', 'ada@saltmarsh.example'],
    [' Ada.Lund+pass@SaltMarsh.EXAMPLE ', 'Ada.Lund+pass@saltmarsh.example'],
    ['ada@saltmarsh', null],
    ['ada@@', null],
    ['ada lund@saltmarsh.example', null],
    ['a@b.example, c@d.example', null],
    ['<ada@saltmarsh.example>', null],
    [`${'a'.repeat(65)}@saltmarsh.example`, null],
    [`ada@${'a'.repeat(260)}.example`, null],
    ['ada@saltmarsh.example\r\nBcc: all@saltmarsh.example', null],
  ])('%s', (text, address) => {
    expect(readMail(text)).toBe(address)
  })
})

describe('files that are sent with answers', () => {
  let directory: string
  let files: AnswerFiles
  beforeEach(() => {
    directory = mkdtempSync(join(tmpdir(), 'flimbo-answers-'))
    files = answerFiles(directory)
  })
  afterEach(() => {
    rmSync(directory, { recursive: true, force: true })
  })
  const kept = () => readdirSync(join(directory, 'answers'))
  const PDF = Buffer.from('%PDF-1.4\n%âãÏÓ\n1 0 obj\n<<>>\nendobj\n')

  it('are kept as they came, under a name nobody finds by trying, their type told by their content', async () => {
    const file = await files.keep(Readable.from([PDF]), 'C:\\Users\\ada\\list\u0007.exe', 1000)
    expect(file).toMatchObject({ name: 'list.exe', type: 'application/pdf', bytes: PDF.length })
    expect(readFileSync(join(directory, 'answers', file?.key ?? ''))).toEqual(PDF)
    expect(file?.key).toMatch(/^[A-Za-z0-9_-]{24}$/)
    const pieces: Buffer[] = []
    for await (const piece of files.open(file?.key ?? '')) pieces.push(piece as Buffer)
    expect(Buffer.concat(pieces)).toEqual(PDF)
  })

  it('are not kept where they are too long, empty, or broken off', async () => {
    expect(await files.keep(Readable.from([Buffer.alloc(11)]), 'a', 10)).toBeNull()
    expect(await files.keep(Readable.from([]), 'a', 10)).toBeNull()
    const broken = new Readable({
      read() {
        this.push(Buffer.alloc(5))
        this.destroy(new Error('the line broke'))
      },
    })
    await expect(files.keep(broken, 'a', 10)).rejects.toThrow('the line broke')
    expect(kept()).toEqual([])
  })

  it('are nowhere but in their own directory, whatever is asked for', () => {
    for (const key of ['../flimbo.sqlite', '', 'a/b', '..', 'x'.repeat(25), 'AAAAAAAAAAAAAAAAAAAAAAA/'])
      expect(() => files.open(key)).toThrow('This is no key of a file.')
  })

  it('are removed where no answer has them and they were not sent lately, and no others', async () => {
    const now = Date.now()
    const DAY = 24 * 3_600_000
    const keys: string[] = []
    for (const age of [10, 10, 0]) {
      const file = await files.keep(Readable.from([PDF]), 'a.pdf', 1000)
      const key = file?.key ?? ''
      keys.push(key)
      const at = new Date(now - age * DAY)
      utimesSync(join(directory, 'answers', key), at, at)
    }
    expect(await files.tidy((key) => key === keys[0], now)).toBe(1)
    expect([...keys, '../x'].map((key) => files.has(key))).toEqual([true, false, true, false])
    expect(kept().sort()).toEqual([keys[0], keys[2]].sort())
    expect(await files.tidy(() => false, now + 10 * DAY)).toBe(2)
    expect(await answerFiles(join(directory, 'nothing here')).tidy(() => false, now)).toBe(0)
  })
})
