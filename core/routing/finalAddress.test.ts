import { describe, expect, it } from 'vitest'
import { finalAddress } from './index.ts'

const UTM = { source: 'pier', medium: 'print', campaign: 'summer-26', term: '', content: '' }

describe('the final address', () => {
  it('carries the tags of the piece, and keeps its placeholders while nobody scans', () => {
    expect(finalAddress('https://saltmarsh.example/{country}', UTM, { region: 'coast' })?.address).toBe(
      'https://saltmarsh.example/%7Bcountry%7D?utm_source=pier&utm_medium=print&utm_campaign=summer-26&region=coast',
    )
  })
  it('is filled where it is known by what', () => {
    const values = { country: 'DE', language: 'de', code: 'PIER', content: '' }
    expect(finalAddress('https://saltmarsh.example/{country}', UTM, {}, values)?.address).toBe(
      'https://saltmarsh.example/DE?utm_source=pier&utm_medium=print&utm_campaign=summer-26',
    )
  })
  it('is none where the destination is no address', () => {
    expect(finalAddress('the timetable', UTM)).toBeNull()
  })
})
