import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, utimesSync, writeFileSync } from 'node:fs'
import { request } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { crc32, deflateSync, gzipSync } from 'node:zlib'
import Sqlite from 'better-sqlite3'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { FILE_BYTES_MAX, type StoredFile } from '@flimbo/core/files'
import { PLAIN_LOOK } from '@flimbo/core/symbol'
import { runningFlimbo, type Running } from '../tests/running.ts'

let flimbo: Running
beforeAll(async () => {
  flimbo = await runningFlimbo({ FLIMBO_FILES_MB: '30' })
  await flimbo.setUp()
})
afterAll(() => flimbo.close())

const send = (bytes: Uint8Array, name = 'gull.png') =>
  flimbo.ask<StoredFile>('POST', `/api/files?name=${encodeURIComponent(name)}`, bytes)
const sentence = async (bytes: Uint8Array, name = 'gull.png') =>
  (await flimbo.refused('POST', `/api/files?name=${encodeURIComponent(name)}`, bytes)).detail
const content = (sum: string, headers = {}) =>
  flimbo.ask<Buffer | string>('GET', `/api/files/${sum}/content`, undefined, headers)
const svg = (inner: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="40" height="20" viewBox="0 0 40 20">${inner}</svg>`
const drawn = async (inner: string) => {
  const { status, body } = await send(Buffer.from(svg(inner)), 'gull.svg')
  if (status !== 201) throw new Error(JSON.stringify(body))
  return String((await content(body.sum)).body)
}
/** A picture of noise, which no format makes small. */
const noise = (side: number) =>
  sharp({
    create: {
      width: side,
      height: side,
      channels: 3,
      background: '#888',
      noise: { type: 'gaussian', mean: 128, sigma: 60 },
    },
  })
/** A white picture of one bit a pixel, written by hand (PNG specification, section 11). */
function blankPng(side: number): Buffer {
  const chunk = (name: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(name), data])
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)]
    length.writeUInt32BE(data.length)
    sum.writeUInt32BE(crc32(body))
    return Buffer.concat([length, body, sum])
  }
  const head = Buffer.alloc(13)
  head.writeUInt32BE(side, 0)
  head.writeUInt32BE(side, 4)
  head[8] = 1
  return Buffer.concat([
    Buffer.from('89504e470d0a1a0a', 'hex'),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(Buffer.alloc(side * (side / 8 + 1)), { level: 1 })),
    chunk('IEND', Buffer.alloc(0)),
  ])
}
const onDisk = () =>
  readdirSync(join(flimbo.config.dataDir, 'files'), { recursive: true, withFileTypes: true }).filter(
    (entry) => entry.isFile(),
  )

describe('an uploaded picture', () => {
  it('is told by what is in it, turned upright, and says nothing of where it was taken', async () => {
    const taken = await noise(60)
      .resize(60, 30)
      .jpeg()
      .withExif({ IFD0: { Copyright: 'A. Petersen' }, IFD3: { GPSLatitude: '53/1 42/1 0/1' } })
      .withMetadata({ orientation: 6 })
      .toBuffer()
    const { status, body } = await send(taken, 'notes.txt')
    expect([status, body.type, body.width, body.height]).toEqual([201, 'image/jpeg', 30, 60])
    const kept = readFileSync(join(flimbo.config.dataDir, 'files', body.sum.slice(0, 2), body.sum))
    const { exif, orientation } = await sharp(kept).metadata()
    expect([exif, orientation ?? 1]).toEqual([undefined, 1])
  })

  it('is kept once, whoever uploads it again, and nothing of another workspace is told', async () => {
    const picture = await noise(50).png().toBuffer()
    const first = await send(picture, 'a.png')
    const again = await send(picture, 'b.png')
    expect([again.body.sum, again.body.name]).toEqual([first.body.sum, 'a.png'])
    expect((await flimbo.person('admin', 'elsewhere')('GET', `/api/files/${first.body.sum}`)).status).toBe(
      404,
    )
  })

  it('comes with a preview, and is served so that nothing in it can run', async () => {
    const { body } = await send(Buffer.from(svg('<rect width="4" height="4"/>')), 'gull.svg')
    const whole = await content(body.sum)
    expect(whole.headers).toMatchObject({
      'content-type': 'image/svg+xml',
      'x-content-type-options': 'nosniff',
      'content-security-policy': expect.stringContaining('sandbox') as string,
    })
    expect(whole.headers['content-disposition']).toContain('attachment')
    const preview = await flimbo.ask('GET', `/api/files/${body.sum}/content?preview=yes`)
    expect(preview.headers['content-type']).toBe('image/webp')
  })
})

describe('a drawing', () => {
  it.each([
    ['a script', '<script>alert(1)</script><rect width="3" height="3"/>', /script|alert/],
    ['a handler', '<rect width="3" height="3" onload="alert(1)" onclick="alert(1)"/>', /alert/],
    ['a link', '<a href="https://saltmarsh.example"><rect width="3" height="3"/></a>', /<a|example/],
    ['a link to a script', '<use href="javascript:alert(1)"/><rect width="3" height="3"/>', /javascript/],
    ['another document', '<use xlink:href="https://saltmarsh.example/a.svg#b"/>', /example/],
    [
      'a page',
      '<foreignObject><body xmlns="http://www.w3.org/1999/xhtml">hi</body></foreignObject>',
      /body|hi/,
    ],
    ['a picture from elsewhere', '<image href="https://saltmarsh.example/a.png"/>', /example|image/],
    ['a style from elsewhere', '<style>@import "https://saltmarsh.example/a.css";</style>', /example/],
    ['an address in a style', '<style>rect{fill:url(https://saltmarsh.example/a)}</style>', /example/],
    ['an escaped address', '<style>rect{fill:u\\72l(https://saltmarsh.example/a)}</style>', /example/],
    [
      'a script hidden in a style',
      '<style>a{}&lt;/style>&lt;script>alert(1)&lt;/script>&lt;style></style>',
      /alert/,
    ],
    ['a twice escaped address', '<style>rect{fill:u&amp;#x72;l(//saltmarsh.example/a)}</style>', /example/],
    [
      'an address in an attribute',
      '<rect width="3" height="3" style="fill:url(//saltmarsh.example/a)"/>',
      /example/,
    ],
    [
      'movement',
      '<rect width="3" height="3"><set attributeName="onload" to="alert(1)"/></rect>',
      /alert|set/,
    ],
  ])('loses %s, and keeps what draws', async (_what, inner, gone) => {
    const kept = await drawn(`${inner}<circle cx="3" cy="3" r="2" fill="#0c5a66"/>`)
    expect(kept).not.toMatch(gone)
    expect(kept).toContain('<circle cx="3" cy="3" r="2" fill="#0c5a66"')
  })

  it('keeps its own gradients, classes and the case of its names', async () => {
    const kept = await drawn(
      '<defs><linearGradient id="g"><stop offset="0" stop-color="#fff"/></linearGradient></defs><style>.a{fill:url(#g)}</style><path class="a" d="M0 0h4v4z"/>',
    )
    expect(kept).toMatch(/viewBox="0 0 40 20"/)
    expect(kept).toMatch(/<linearGradient id="g">/)
    expect(kept).toMatch(/fill:url\(#g\)/)
  })

  it('that unfolds into billions of letters or parts is drawn small or refused, and quickly', async () => {
    const letters = `<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa">${'bcdefghij'
      .split('')
      .map((name, i) => `<!ENTITY ${name} "${`&${'abcdefghij'[i] ?? ''};`.repeat(10)}">`)
      .join('')}]>${svg('<text>&j;</text>')}`
    const parts = svg(
      `<g id="u0"><rect width="1" height="1"/></g>${Array.from({ length: 40 }, (_each, i) => `<g id="u${String(i + 1)}">${`<use href="#u${String(i)}"/>`.repeat(10)}</g>`).join('')}`,
    )
    for (const bomb of [letters, parts]) {
      const { status, body } = await send(Buffer.from(bomb), 'bomb.svg')
      expect(status === 201 ? body.bytes < 100_000 : status === 422).toBe(true)
    }
  }, 120_000)

  it('of nothing that draws is refused with what to do', async () => {
    expect(await sentence(Buffer.from('<html><body>hi</body></html>'))).toContain('Save it as plain SVG')
    expect(await sentence(Buffer.from('<svg'))).toMatch(/plain SVG/)
  })
})

describe('what is no picture', () => {
  it.each([
    ['an empty file', new Uint8Array(0), 'The file is empty'],
    ['text', Buffer.from('MZ hello'), 'no file that Flimbo reads'],
    ['a compressed drawing', gzipSync(svg('')), 'Save a picture as PNG, JPEG, WebP or SVG'],
  ])('%s is refused with what to do', async (_what, bytes, words) => {
    expect(await sentence(bytes)).toContain(words)
  })

  it('another kind of picture is refused by its own name', async () => {
    expect(await sentence(await noise(8).gif().toBuffer())).toContain('This is a GIF file')
  })

  it('a picture that was cut off is refused', async () => {
    const whole = await noise(200).png().toBuffer()
    expect(await sentence(whole.subarray(0, whole.length / 2))).toContain('cut off')
  })

  it('a few bytes that unfold into gigabytes are refused before they do', async () => {
    const bomb = blankPng(20_000)
    expect(bomb.length).toBeLessThan(300_000)
    expect(await sentence(bomb)).toContain('20000 × 20000 pixels')
  })

  it('what is a picture and a page at once is the picture alone afterwards', async () => {
    const picture = await noise(20).jpeg().toBuffer()
    const both = Buffer.concat([picture, Buffer.from('<script>alert(1)</script>')])
    const { body } = await send(both, 'both.html')
    const kept = await flimbo.ask<string>('GET', `/api/files/${body.sum}/content`)
    expect(kept.headers['content-type']).toBe('image/jpeg')
    expect(kept.body).not.toContain('alert')
  })
})

describe('what is too much', () => {
  it('a large file is refused by the size it says, and by the size it has', async () => {
    const said = await flimbo.refused('POST', '/api/files?name=a.png', Buffer.alloc(FILE_BYTES_MAX + 1))
    expect([said.status, said.detail]).toEqual([413, expect.stringContaining('larger than 96 MB')])
    const status = await new Promise<number>((resolve, reject) => {
      const asking = request(
        {
          port: flimbo.ports.office,
          path: '/api/files?name=a.png',
          method: 'POST',
          headers: { cookie: flimbo.cookie, 'transfer-encoding': 'chunked' },
        },
        (response) => {
          response.resume()
          resolve(response.statusCode ?? 0)
        },
      )
      asking.on('error', reject)
      const part = Buffer.alloc(1 << 20)
      for (let i = 0; i < 30; i++) asking.write(part)
      asking.end()
    })
    expect(status).toBe(413)
    expect(onDisk().filter(({ parentPath }) => parentPath.endsWith('incoming'))).toEqual([])
  })

  it('a workspace keeps no more than its share', async () => {
    const large = () => noise(2400).png({ compressionLevel: 1 }).toBuffer()
    const answers = [await send(await large()), await send(await large())]
    expect(answers.map(({ status }) => status)).toEqual([201, 413])
    expect(JSON.stringify(answers[1]?.body)).toContain('of the 30 MB your workspace has')
    await flimbo.ask('DELETE', `/api/files/${answers[0]?.body.sum ?? ''}`)
    expect((await send(await large())).status).toBe(201)
  }, 60_000)
})

describe('an upload that comes to no end', () => {
  it('leaves nothing, whether its sender or the server breaks it off', async () => {
    const before = onDisk().length
    const asking = request({
      port: flimbo.ports.office,
      path: '/api/files?name=a.png',
      method: 'POST',
      headers: { cookie: flimbo.cookie, 'content-length': '100000' },
    })
    asking.on('error', () => undefined)
    asking.write(Buffer.alloc(1000))
    while (onDisk().length === before) await new Promise((resolve) => setTimeout(resolve, 5))
    asking.destroy()
    while (onDisk().length > before) await new Promise((resolve) => setTimeout(resolve, 5))
    // What a killed process leaves behind: half an upload, and a file nobody knows of.
    const files = join(flimbo.config.dataDir, 'files')
    const long = new Date(Date.now() - 2 * 60 * 60_000)
    const leftBehind = (name: string) => {
      writeFileSync(join(files, name), 'x')
      utimesSync(join(files, name), long, long)
    }
    leftBehind('incoming/half')
    const known = onDisk().length - 1
    const orphan = 'ab'.padEnd(64, '0')
    const { body } = await send(Buffer.from(svg('<rect width="9" height="9"/>')))
    leftBehind(`${body.sum.slice(0, 2)}/${orphan}`)
    await flimbo.stop()
    const next = await runningFlimbo({ FLIMBO_DATA_DIR: flimbo.config.dataDir })
    expect(onDisk().length).toBe(known + 2)
    expect(onDisk().map(({ name }) => name)).not.toContain(orphan)
    await next.stop()
    flimbo = await runningFlimbo({ FLIMBO_DATA_DIR: flimbo.config.dataDir })
    await flimbo.ask('POST', '/api/session', {
      email: 'anna@saltmarsh.example',
      password: 'low tide at noon',
    })
  })
})

describe('a backup', () => {
  it('holds the database and the files it names, as they were while Flimbo ran', async () => {
    const { body } = await send(Buffer.from(svg('<rect width="7" height="7"/>')))
    const to = mkdtempSync(join(tmpdir(), 'flimbo-backup-'))
    const answers = join(flimbo.config.dataDir, 'answers')
    mkdirSync(answers, { recursive: true })
    writeFileSync(join(answers, 'AAAA'), 'sent with an answer')
    try {
      const env = { ...process.env, FLIMBO_DATA_DIR: flimbo.config.dataDir }
      const script = fileURLToPath(new URL('../../scripts/backup.mjs', import.meta.url))
      execFileSync(process.execPath, [script, to], { env })
      const copy = new Sqlite(join(to, 'flimbo.sqlite'), { readonly: true })
      expect(copy.prepare('SELECT name FROM files WHERE sum = ?').get(body.sum)).toEqual({ name: 'gull.png' })
      copy.close()
      const kept = readFileSync(join(to, 'files', body.sum.slice(0, 2), body.sum))
      expect(createHash('sha256').update(kept).digest('hex')).toBe(body.sum)
      expect(readFileSync(join(to, 'answers', 'AAAA'), 'utf8')).toBe('sent with an answer')
    } finally {
      rmSync(to, { recursive: true, force: true })
    }
  })
})

describe('a file that something uses', () => {
  it('says what does, and is deleted only once nothing does', async () => {
    const { body: file } = await send(Buffer.from(svg('<rect width="5" height="5"/>')), 'gull.svg')
    const white = { rgb: '#ffffff', cmyk: null }
    const logo = { file: file.sum, share: 0.2, margin: 1, plate: 'none', plateTint: white, cleared: true }
    const { body: style } = await flimbo.ask<{ id: number; version: number }>('POST', '/api/house-styles', {
      name: 'Gull',
      look: { ...PLAIN_LOOK, logo },
    })
    const { body: seen } = await flimbo.ask<StoredFile>('GET', `/api/files/${file.sum}`)
    expect(seen.uses).toEqual([{ by: 'house-style', id: style.id, name: 'Gull' }])
    const refused = await flimbo.refused('DELETE', `/api/files/${file.sum}`)
    expect(refused.detail).toContain('“Gull” needs this file')
    await flimbo.ask('PATCH', `/api/house-styles/${String(style.id)}`, { version: 1, look: PLAIN_LOOK })
    expect((await flimbo.ask('DELETE', `/api/files/${file.sum}`)).status).toBe(204)
    expect((await content(file.sum)).status).toBe(404)
    const gone = await flimbo.refused('POST', '/api/house-styles', {
      name: 'B',
      look: { ...PLAIN_LOOK, logo },
    })
    expect(gone.status).toBe(404)
  })
})
