import { describe, expect, it, vi } from 'vitest'
import { problemOf } from '@flimbo/core/api'
import { newCode } from '@flimbo/core/codes'
import { ApiProblem } from './call.ts'
import { byContract, showFaults } from './forms.ts'

describe('a form checked by the contract', () => {
  const resolve = (values: Record<string, unknown>) =>
    byContract<Record<string, unknown>>(newCode, (v) => ({ campaignId: 1, ...v }))(values, undefined, {
      fields: {},
      shouldUseNativeValidation: false,
    })
  it('says the server’s own sentences at the fields', async () => {
    expect(await resolve({ name: '', medium: 'print', source: 'x', destination: 'nowhere' })).toMatchObject({
      errors: {
        name: { message: 'Give a name.' },
        destination: { message: 'This is not a whole web address. Write it as https://example.com/page.' },
      },
    })
  })
  it('hands on what was typed where nothing is wrong', async () => {
    const values = { name: ' A ', medium: 'print', source: 'x', destination: 'https://saltmarsh.example' }
    expect(await resolve(values)).toEqual({ values, errors: {} })
  })
})

describe('what the server refused', () => {
  it('stands at the fields the form has', () => {
    const set = vi.fn()
    expect(
      showFaults(
        new ApiProblem(problemOf('taken', 'Taken.', { fields: [{ path: 'slug', message: 'Taken.' }] })),
        set,
        ['slug'],
      ),
    ).toBeNull()
    expect(set).toHaveBeenCalledWith('slug', { type: 'server', message: 'Taken.' })
  })
  it('stands above the form where a field is none of its own, or there is none', () => {
    const set = vi.fn()
    expect(
      showFaults(
        new ApiProblem(problemOf('invalid', 'Wrong.', { fields: [{ path: 'other', message: 'Wrong.' }] })),
        set,
        ['slug'],
      ),
    ).toBe('Wrong.')
    expect(showFaults(new ApiProblem(problemOf('failed', 'The disk is full.')), set, ['slug'])).toBe(
      'The disk is full.',
    )
    expect(showFaults(new TypeError('x'), set, ['slug'])).toContain('nothing typed was lost')
    expect(set).not.toHaveBeenCalled()
  })
})
