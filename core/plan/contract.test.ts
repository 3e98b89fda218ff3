import { describe, expect, it } from 'vitest'
import { openApiDocument } from '../api/index.ts'
import { domainChange, newDomain } from '../domains/index.ts'
import { planApi, preferences } from './index.ts'

describe('handing in a file', () => {
  it('names the campaign and the file', () => {
    const { query } = planApi.read
    expect(query?.parse({ campaignId: '3', name: ' plan.csv ' })).toEqual({ campaignId: 3, name: 'plan.csv' })
    expect(query?.safeParse({ campaignId: '3' }).success).toBe(false)
  })

  it('is described as a body of bytes in the document of the API (OpenAPI Specification 3.1.0)', () => {
    const document = openApiDocument([planApi.read, planApi.csv], { title: 'T', version: '1' })
    const paths = document.paths as Record<string, Record<string, { requestBody?: unknown }>>
    expect(paths['/imports']?.post?.requestBody).toEqual({
      required: true,
      content: { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } },
    })
    expect(paths['/plan.csv']?.get?.requestBody).toBeUndefined()
  })

  it.each([
    [{ mapping: ['name', null] }, true],
    [{ delimiter: ';' }, true],
    [{ delimiter: 'x' }, false],
    [{ encoding: 'utf-16le', headings: false, empty: 'clear', fix: true }, true],
    [{ encoding: 'ebcdic' }, false],
    [{ colour: 'red' }, false],
  ])('is read anew by %j: %s', (adjustment, taken) => {
    expect(planApi.adjust.body?.safeParse(adjustment).success).toBe(taken)
  })
})

describe('what is remembered', () => {
  it('are columns and sensible widths', () => {
    expect(preferences.safeParse({ planColumns: ['name'], planWidths: { name: 200 } }).success).toBe(true)
    expect(preferences.safeParse({ planColumns: null, planWidths: { name: 5 } }).success).toBe(false)
  })

  it('a view keeps its filter, and none of another campaign', () => {
    const { body } = planApi.saveView
    const value = { columns: ['name'], sort: 'name', order: 'asc', group: '', filter: { finding: 'spaces' } }
    expect(body?.safeParse({ name: 'V', value }).success).toBe(true)
    expect(body?.safeParse({ name: ' ', value }).success).toBe(false)
    expect(body?.safeParse({ name: 'V', value: { ...value, filter: { campaignId: 3 } } }).success).toBe(false)
  })
})

describe('naming a domain', () => {
  it('takes a host however it is typed, and keeps its one spelling', () => {
    expect(newDomain.parse({ host: ' QR.Saltmarsh.example ' })).toEqual({ host: 'qr.saltmarsh.example' })
    expect(newDomain.safeParse({ host: 'qr.saltmarsh.example/x' }).error?.issues[0]?.message).toContain(
      'no https://, no path',
    )
    expect(newDomain.safeParse({}).error?.issues[0]?.message).toContain('Give the host name')
  })

  it.each([
    [{ home: '' }, true],
    [{ home: 'https://saltmarsh.example' }, true],
    [{ home: 'saltmarsh' }, false],
    [{ unknown: 'javascript:alert(1)' }, false],
    [{ unknownText: 'x'.repeat(401) }, false],
    [{ isDefault: true }, true],
    [{ isDefault: false }, false],
  ])('a change of %j is taken: %s', (change, taken) => {
    expect(domainChange.safeParse({ version: 1, ...change }).success).toBe(taken)
  })
})
