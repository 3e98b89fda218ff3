import { problemOf } from '@flimbo/core/api'
import { describe, expect, it } from 'vitest'
import { ApiProblem, newerOf } from './call.ts'
import { oneAtATime } from './oneAtATime.ts'

const turn = () =>
  new Promise((resolve) => {
    setTimeout(resolve, 1)
  })

describe('saves one at a time', () => {
  it('never overlap, and of what comes meanwhile only the last is sent', async () => {
    const sent: number[] = []
    let [under, most] = [0, 0]
    const ends: (() => void)[] = []
    const save = oneAtATime(async (value: number) => {
      most = Math.max(most, ++under)
      sent.push(value)
      await new Promise<void>((resolve) => {
        ends.push(resolve)
      })
      under--
    })
    for (const value of [1, 2, 3]) save(value)
    ends.shift()?.()
    await turn()
    save(4)
    ends.shift()?.()
    await turn()
    ends.shift()?.()
    await turn()
    save(5)
    expect([sent, most]).toEqual([[1, 3, 4, 5], 1])
  })
})

describe('what somebody saved meanwhile', () => {
  it('is in a conflict alone: that something is still in use is no newer copy', () => {
    const current = { version: 7 }
    expect(newerOf(new ApiProblem(problemOf('conflict', 'Someone saved this.', { current })))).toEqual({
      current,
    })
    expect(newerOf(new ApiProblem(problemOf('taken', 'The tag is used by a route.')))).toBeNull()
    expect(newerOf(new Error('offline'))).toBeNull()
  })
})
