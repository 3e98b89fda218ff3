import { describe, expect, it } from 'vitest'
import { content, CONTENT_KINDS } from '@flimbo/core/contents'
import { figureIn } from './ContentForm.tsx'
import { emptyContent, FORMS } from './fields.ts'

describe('the form of each kind of content', () => {
  it.each(CONTENT_KINDS)('%s begins with something of its shape, and shows every part of it', (kind) => {
    const empty = emptyContent(kind, '2026-07-03', 'Europe/Berlin')
    expect(content.parse(empty)).toEqual(empty)
    // The zone of an event is the campaign's.
    const parts = Object.keys(empty).filter((part) => part !== 'kind' && part !== 'zone')
    expect(FORMS[kind].fields.map(({ name }) => name).sort()).toEqual(parts.sort())
  })
})

describe('a number in a form', () => {
  it.each([
    ['degrees', '53,70', 53.7],
    ['degrees', '-7.15', -7.15],
    ['degrees', '', undefined],
    ['degrees', 'north', undefined],
    ['money', '12.5', 1250],
    ['money', '0,1', 10],
    ['money', '', null],
  ] as const)('%s %j is %j', (as, text, value) => {
    expect(figureIn(as, text)).toBe(value)
  })
})
