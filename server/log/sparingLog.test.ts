import { describe, expect, it } from 'vitest'
import { createSparingLog } from './index.ts'

describe('trouble that comes thousands of times', () => {
  const told: unknown[] = []
  let now = 0
  const tell = createSparingLog(
    {
      error: (about: unknown) => {
        told.push(about)
      },
    },
    () => now,
  )
  const full = new Error('database or disk is full')

  it('is told whole the first time, and then once a minute how often it came', () => {
    for (let i = 0; i < 1000; i++) tell(full, 'A scan could not be stored')
    expect(told).toEqual([{ error: full }])
    now += 60_000
    tell(full, 'A scan could not be stored')
    expect(told).toHaveLength(2)
    expect(told[1]).toEqual({ error: 'Error database or disk is full', times: 1000 })
  })

  it('hides no other trouble meanwhile, nor the same in another place', () => {
    const before = told.length
    tell(new Error('disk I/O error'), 'A scan could not be stored')
    tell(full, 'A mail could not be stored')
    expect(told.slice(before)).toHaveLength(2)
  })

  it('takes no memory without bound where each is another', () => {
    const before = told.length
    for (let i = 0; i < 500; i++) tell(new Error(`no. ${String(i)}`), 'It went wrong')
    expect(told.length - before).toBe(500)
  })
})
