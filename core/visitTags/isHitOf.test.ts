import { describe, expect, it } from 'vitest'
import { isHitOf } from './index.ts'

const hit = (path: string, values: [string, string][] = []) => ({ site: 'collector.example', path, values })

describe('whose hit a collector received', () => {
  const measured = { address: 'https://collector.example/g/collect?id={id}&v=2', value: 'M-ALPHA' }
  it('is that of the tag whose own ID came with it', () => {
    expect(
      isHitOf(
        measured,
        hit('/g/collect', [
          ['v', '2'],
          ['id', 'M-ALPHA'],
        ]),
      ),
    ).toBe(true)
    expect(isHitOf({ ...measured, value: 'M-BETA' }, hit('/g/collect', [['id', 'M-ALPHA']]))).toBe(false)
    expect(isHitOf(measured, hit('/g/collect', []))).toBe(false)
  })
  it('is told by the path where the ID stands in it', () => {
    expect(isHitOf({ address: 'https://collector.example/{id}/hit', value: 'a b' }, hit('/a%20b/hit'))).toBe(
      true,
    )
    expect(isHitOf({ address: 'https://collector.example/{id}/hit', value: 'c' }, hit('/a%20b/hit'))).toBe(
      false,
    )
  })
  it('is a container’s where it was sent to the place the container came from', () => {
    const tag = { address: 'https://collector.example/a/container.js', value: 'C-1' }
    expect(
      [hit('/a/hit', [['from', 'container']]), hit('/b/hit'), hit('/a/hit', [['id', 'another']])].map(
        (each) => isHitOf(tag, each),
      ),
    ).toEqual([true, false, false])
  })
  it('is nobody’s at another site, or where a tag has no address', () => {
    expect(isHitOf(measured, { ...hit('/g/collect', [['id', 'M-ALPHA']]), site: 'elsewhere.example' })).toBe(
      false,
    )
    expect(isHitOf({ ...measured, address: 'nothing' }, hit('/g/collect', [['id', 'M-ALPHA']]))).toBe(false)
  })
})
