import { randomBytes } from 'node:crypto'
import { request } from 'node:http'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { StoredFile } from '@flimbo/core/files'
import { newPart, type Page, type Part } from '@flimbo/core/pages'
import { runningFlimbo, type Running } from '../tests/running.ts'

let flimbo: Running
let campaignId: number
let film: StoredFile
let paper: StoredFile
// What files of each kind begin with (ISO 32000, ISO 14496-12); what follows is noise.
const PDF = Buffer.concat([Buffer.from('%PDF-1.7\n'), randomBytes(60_000)])
const MP4 = Buffer.concat([
  Buffer.from('\0\0\0\x20ftypisom\0\0\x02\0isomiso2avc1mp41', 'latin1'),
  randomBytes(5_000_000),
])
const upload = async (bytes: Uint8Array, name: string, path = '/api/files') =>
  (await flimbo.ask<StoredFile>('POST', `${path}?name=${encodeURIComponent(name)}`, bytes)).body
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaignId = (await flimbo.campaign()).id
  film = await upload(MP4, 'Seals “close”.mp4')
  paper = await upload(PDF, 'Timetable.pdf')
})
afterAll(() => flimbo.close())

interface Got {
  status: number
  headers: NodeJS.Dict<string | string[]>
  body: Buffer
}
const get = (path: string, headers: Record<string, string> = {}, method = 'GET'): Promise<Got> =>
  new Promise((resolve, reject) => {
    request({ port: flimbo.ports.door, path, method, headers }, (response) => {
      const pieces: Buffer[] = []
      response.on('data', (piece: Buffer) => pieces.push(piece))
      response.on('end', () => {
        resolve({ status: response.statusCode ?? 0, headers: response.headers, body: Buffer.concat(pieces) })
      })
    })
      .on('error', reject)
      .end()
  })
const at = ({ key }: StoredFile, rest = 'x') => `/~f/${key}/${rest}`

describe('a public file', () => {
  it('is sent whole with its type, length and validator, and may be asked for in ranges', async () => {
    const { status, headers, body } = await get(at(film))
    expect([status, headers['content-type'], headers['content-length'], headers['accept-ranges']]).toEqual([
      200,
      'video/mp4',
      String(MP4.length),
      'bytes',
    ])
    expect(body.equals(MP4)).toBe(true)
    expect(headers.etag).toBe(`"${film.sum.slice(0, 32)}"`)
    expect(headers['content-disposition']).toBe(
      "inline; filename*=UTF-8''Seals%20%E2%80%9Cclose%E2%80%9D.mp4",
    )
    expect((await get(`${at(film)}?save`)).headers['content-disposition']).toMatch(/^attachment/)
  })

  // RFC 9110, section 14: the first bytes, those from one on, a suffix, one longer than the file.
  const end = MP4.length - 1
  it.each([
    ['bytes=0-499', 0, 499],
    ['bytes=500-', 500, end],
    ['bytes=-500', end - 499, end],
    [`bytes=-${String(MP4.length * 2)}`, 0, end],
    [`bytes=4999999-99999999`, 4_999_999, end],
  ])('sends of %s the bytes that are there', async (range, from, to) => {
    const { status, headers, body } = await get(at(film), { range })
    expect([status, headers['content-range']]).toEqual([
      206,
      `bytes ${String(from)}-${String(to)}/${String(MP4.length)}`,
    ])
    expect(body.equals(MP4.subarray(from, to + 1))).toBe(true)
  })

  it('says of a range that is not there how long it is', async () => {
    const { status, headers } = await get(at(film), { range: `bytes=${String(MP4.length)}-` })
    expect([status, headers['content-range']]).toEqual([416, `bytes */${String(MP4.length)}`])
  })

  it.each(['bytes=0-1,5-9', 'lines=1-2', 'bytes=x-y'])(
    'may take no notice of %s, and then sends all of it',
    async (range) => {
      const { status, body } = await get(at(paper), { range })
      expect([status, body.equals(PDF)]).toEqual([200, true])
    },
  )

  it('may refuse a range whose end lies before its start (section 14.2)', async () => {
    expect((await get(at(paper), { range: 'bytes=9-1' })).status).toBe(416)
  })

  it('is not sent again to who has it, and a range only of what somebody has begun with', async () => {
    const { headers } = await get(at(paper))
    const etag = String(headers.etag)
    expect((await get(at(paper), { 'if-none-match': etag })).status).toBe(304)
    expect((await get(at(paper), { range: 'bytes=0-9', 'if-range': etag })).status).toBe(206)
    expect((await get(at(paper), { range: 'bytes=0-9', 'if-range': '"other"' })).status).toBe(200)
    expect((await get(at(paper), { 'if-match': '"other"' })).status).toBe(412)
    const head = await get(at(paper), {}, 'HEAD')
    expect([head.headers['content-length'], head.body.length]).toEqual([String(PDF.length), 0])
  })

  it('may be kept for ever under the mark of its bytes, and is asked for anew without', async () => {
    const marked = await get(`${at(paper)}?v=${paper.sum.slice(0, 8)}`)
    expect(marked.headers['cache-control']).toBe('public, max-age=31536000, immutable')
    for (const query of ['', '?v=00000000'])
      expect((await get(at(paper) + query)).headers['cache-control']).toBe('public, max-age=0')
  })

  it.each(['/~f/', '/~f/short/x', `/~f/${'A'.repeat(21)}/x`, `/~f/..%2F..%2Fdoor.secret/x`, '/~f/%00/x'])(
    'that is none is told of in words: %s',
    async (path) => {
      const { status, headers } = await get(path)
      expect([status, headers['content-type']]).toEqual([404, 'text/html; charset=utf-8'])
    },
  )

  it('keeps its address when another is put in its place, of the same kind alone', async () => {
    const next = Buffer.concat([Buffer.from('%PDF-1.7\n'), randomBytes(1000)])
    const replaced = await upload(next, 'Timetable 2.pdf', `/api/files/${paper.sum}/replace`)
    expect([replaced.key, replaced.name]).toEqual([paper.key, 'Timetable 2.pdf'])
    expect((await get(at(paper))).body.equals(next)).toBe(true)
    const { detail } = await flimbo.refused('POST', `/api/files/${replaced.sum}/replace?name=a`, MP4)
    expect(detail).toContain('is a PDF. Upload another of the same kind')
    paper = replaced
  })
})

describe('a picture', () => {
  it('is there in the sizes and formats that phones take', async () => {
    const bytes = await sharp({ create: { width: 1600, height: 1200, channels: 3, background: '#c4881c' } })
      .png()
      .toBuffer()
    const picture = await upload(bytes, 'dunes.png')
    expect(picture.widths).toEqual([540, 1080])
    for (const [variant, format] of [
      ['540.avif', 'heif'],
      ['1080.webp', 'webp'],
      ['540.jpg', 'jpeg'],
    ] as const) {
      const { headers, body } = await get(at(picture, variant))
      const read = await sharp(body).metadata()
      expect([read.format, read.width]).toEqual([format, Number.parseInt(variant, 10)])
      expect(headers.etag).toContain(variant.replace('.', '-'))
    }
    expect((await get(at(picture, '777.avif'))).headers['content-type']).toBe('image/png')
  })
})

describe('what is uploaded', () => {
  it.each([
    ['WEBVTT\n\n00:01.000 --> 00:04.000\nHello\n', 'text/vtt'],
    [`ID3\x04\0\0\0\0\0\0\xff\xfb\x90\x64${'\0'.repeat(2000)}`, 'audio/mpeg'],
    [`OggS${'\0'.repeat(24)}\x01vorbis${'\0'.repeat(400)}`, 'audio/ogg'],
  ])('is told by what is in it: %j', async (text, type) => {
    expect((await upload(Buffer.from(text, 'latin1'), 'anything.bin')).type).toBe(type)
  })

  it.each([
    ['WEBVTT\n\nno times\n', 'no line that says when'],
    ['RIFF\x24\0\0\0AVI LIST', 'which not every phone plays'],
    ['MZ\x90\0'.padEnd(200, 'x'), 'no file that Flimbo reads'],
  ])('is refused with what to do: %j', async (text, sentence) => {
    const { detail } = await flimbo.refused('POST', '/api/files?name=a', Buffer.from(text, 'latin1'))
    expect(detail).toContain(sentence)
  })
})

describe('a file as a destination', () => {
  const made = async (key: string) =>
    (await flimbo.ask<Page>('POST', '/api/page-files', { campaignId, key })).body

  it('is opened by a scan at once where nothing is played, and the scan is counted', async () => {
    const page = await made(paper.key)
    const code = await flimbo.codeTo(campaignId, page.id, 'paper')
    const { status, headers } = await flimbo.scan('/paper')
    expect([status, headers['cache-control']]).toEqual([302, 'no-store'])
    expect((await get(String(headers.location))).headers['content-type']).toBe('application/pdf')
    expect(flimbo.rows('SELECT outcome FROM scans WHERE codeId = ?', code.id)).toEqual([{ outcome: 'page' }])
  })

  it('has a player where something is', async () => {
    const page = await made(film.key)
    await flimbo.codeTo(campaignId, page.id, 'film')
    expect(String((await flimbo.scan('/film')).body)).toContain(`src="/~f/${film.key}/`)
  })

  it('is kept for as long as a page shows it', async () => {
    const { detail } = await flimbo.refused('DELETE', `/api/files/${film.sum}`)
    expect(detail).toContain('needs this file')
    const part: Part = {
      ...newPart('file', 'f'),
      file: { en: paper.key },
      label: { en: 'Paper' },
      way: 'save',
    }
    const page = await flimbo.page(campaignId, 'Take away', [part])
    await flimbo.codeTo(campaignId, page.id, 'take')
    const [, href = ''] = /href="([^"]+\/t\/f)"/.exec(String((await flimbo.scan('/take')).body)) ?? []
    expect((await flimbo.scan(href)).headers.location).toMatch(/&save$/)
  })
})
