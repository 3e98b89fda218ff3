import { describe, expect, it } from 'vitest'
import { draftOf, keyOfName, NEW_GOAL, readDraft, type GoalDraft } from './goalForm.ts'
import { lasting } from './SitePages.tsx'

const read = (more: Partial<GoalDraft>) => readDraft({ ...NEW_GOAL, name: 'Season pass', ...more })

describe('a goal as it is typed', () => {
  it('gets a key of its name, and keeps only what its kind has a use for', () => {
    const typed = { pattern: '/thanks', selector: '#buy', signedOnly: true, value: '39,50' }
    expect(read({ ...typed, kind: 'address' }).settings).toEqual({
      ...{ name: 'Season pass', kind: 'address', key: 'season-pass', pattern: '/thanks', selector: '' },
      ...{ value: 39.5, counts: 'scan', signedOnly: false, isOn: true },
    })
    expect(read({ ...typed, kind: 'sent' }).settings).toMatchObject({ pattern: '', signedOnly: true })
    expect(read({ kind: 'click', selector: '#buy', key: 'buy' }).settings).toMatchObject({
      ...{ selector: '#buy', key: 'buy', value: null },
    })
  })
  it.each<[Partial<GoalDraft>, string]>([
    [{ name: ' ' }, 'name'],
    [{ kind: 'address', pattern: 'thanks' }, 'pattern'],
    [{ kind: 'click', selector: '' }, 'selector'],
    [{ kind: 'click', selector: '##' }, 'selector'],
    [{ kind: 'sent', value: 'much' }, 'value'],
    [{ kind: 'sent', key: 'a b' }, 'key'],
  ])('with %j is not saved, and says why', (more, field) => {
    const { settings, faults } = read(more)
    expect([settings, [...faults.keys()]]).toEqual([null, expect.arrayContaining([field])])
  })
  it.each([
    ['39 €', 39],
    ['1.234,50', 1234.5],
    ['1,000', 1000],
    ['', null],
  ])('is worth %j as people write it', (value, worth) => {
    expect(read({ kind: 'sent', value }).settings?.value).toBe(worth)
  })
  it.each(['2.5', '2.505'])('is typed again as it was stored: %s', (value) => {
    const { settings } = read({ kind: 'sent', value })
    if (!settings) throw new Error('It was not read.')
    const stored = { ...settings, id: 1, campaignId: 1, version: 1, reached: 0, worth: 0, lastAt: null }
    expect(readDraft(draftOf(stored)).settings).toEqual(settings)
  })
  it.each([
    ['Café & Bar!', 'cafe-bar'],
    ['Tag der Öffnung', 'tag-der-offnung'],
    ['  ', ''],
    ['x'.repeat(60), 'x'.repeat(40)],
    [`${'x'.repeat(39)} y`, 'x'.repeat(39)],
  ])('%j is called %j', (name, key) => {
    expect(keyOfName(name)).toBe(key)
  })
})

describe('a time on a page', () => {
  it.each([
    [0, '0 s'],
    [59, '59 s'],
    [60, '1 min 0 s'],
    [135, '2 min 15 s'],
  ])('of %i s is read as %s', (seconds, text) => {
    expect(lasting(seconds)).toBe(text)
  })
})
