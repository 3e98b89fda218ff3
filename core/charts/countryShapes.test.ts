import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import countries from 'i18n-iso-countries'
import type { Topology } from 'topojson-specification'
import { describe, expect, it } from 'vitest'
import { codedShapes, namedShapes } from './index.ts'

const { resolve } = createRequire(import.meta.url)
// Natural Earth, 1:110 million, public domain.
const topology = JSON.parse(readFileSync(resolve('world-atlas/countries-110m.json'), 'utf8')) as Topology
const namesOf = (shapes: ReturnType<typeof codedShapes>) =>
  (shapes?.features ?? []).map(({ properties }) => String((properties as { name?: unknown } | null)?.name))

describe('the shapes of countries', () => {
  it('are called by the codes that the standard gives their numbers (ISO 3166-1), as another library has them', () => {
    const coded = codedShapes(topology)
    const numbered = (coded?.features ?? []).filter(({ id }) => id !== undefined)
    expect(numbered.length).toBeGreaterThan(160)
    for (const { id, properties } of numbered)
      expect((properties as { name?: string } | null)?.name).toBe(countries.numericToAlpha2(String(id)))
    expect(namesOf(coded)).toEqual(expect.arrayContaining(['DE', 'NL', 'DK', 'GB']))
  })

  it('are each there once, but for the South Pole, where nobody scans', () => {
    const [all, coded] = [namesOf(namedShapes(topology)), namesOf(codedShapes(topology))]
    expect(all).toContain('Antarctica')
    expect(coded.length).toBe(all.length - 1)
    expect(new Set(coded).size).toBe(coded.length)
    expect(coded).not.toContain('AQ')
  })

  it('are none where a topology has no countries', () => {
    expect(codedShapes({ ...topology, objects: {} })).toBeNull()
  })
})
