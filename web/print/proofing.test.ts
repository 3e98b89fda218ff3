import { describe, expect, it } from 'vitest'
import { NOTHING_MEASURED, withAnswer, type Measured, type ProofAnswer } from './proofing.ts'
import { numberIn } from './rows.tsx'
import { colourIn } from './TintField.tsx'

const grade = { grade: 'A' as const, value: 1 }
const grades = {
  contrast: grade,
  modulation: grade,
  fixedPattern: grade,
  axial: grade,
  correction: grade,
  decode: grade,
  overall: 'A' as const,
  blocks: [],
}
const proof = { grades, limits: [], readiness: 'will-fail' as const, reasons: [{ code: 'unread' as const }] }
const fix = { id: 'no-logo' as const, sentence: 'Remove the logo.', set: {}, readiness: 'ready' as const }
const after = (...answers: ProofAnswer[]) => answers.reduce(withAnswer, NOTHING_MEASURED)

describe('what is known of a piece while it is measured', () => {
  it('grows with each answer, and is stale until the proof is there', () => {
    const first = after({ id: 1, kind: 'grades', grades })
    expect([first.grades, first.isStale]).toEqual([grades, true])
    const whole = withAnswer(first, { id: 1, kind: 'proof', proof })
    expect([whole.proof, whole.isStale, whole.costs]).toEqual([proof, false, null])
    const costs = [{ choice: 'logo' as const, grades: 1, metres: 0, tiltDeg: 0 }]
    const all = [{ id: 1, kind: 'fixes', fixes: [fix] } as const, { id: 1, kind: 'costs', costs } as const]
    expect(all.reduce<Measured>(withAnswer, whole)).toMatchObject({ fixes: [fix], costs, proof })
  })

  it('offers no fix of the draft before once the next one is measured', () => {
    const before = after({ id: 1, kind: 'proof', proof }, { id: 1, kind: 'fixes', fixes: [fix] })
    expect(withAnswer(before, { id: 2, kind: 'proof', proof }).fixes).toEqual([])
  })

  it('is nothing where measuring failed, and says why', () => {
    const failed = withAnswer(after({ id: 1, kind: 'proof', proof }), {
      id: 2,
      kind: 'fault',
      sentence: 'No',
    })
    expect(failed).toEqual({ ...NOTHING_MEASURED, fault: 'No', isStale: false })
  })
})

describe('what is typed on the job sheet', () => {
  it.each([
    ['12', 12],
    [' 3,5 ', 3.5],
    ['0.25', 0.25],
    ['', null],
    ['1e', null],
    ['12 mm', null],
  ])('%j is the number %j', (text, value) => {
    expect(numberIn(text)).toBe(value)
  })

  it.each([
    ['#0C5A66', '#0c5a66'],
    ['0c5a66', '#0c5a66'],
    ['#fa0', '#ffaa00'],
    ['fa', null],
    ['petrol', null],
    ['#0c5a66f', null],
  ])('%j is the colour %j', (text, colour) => {
    expect(colourIn(text)).toBe(colour)
  })
})
