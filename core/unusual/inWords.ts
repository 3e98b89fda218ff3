import { country, day as dayInWords, number, quantity } from '../formats/index.ts'
import type { Finding } from './findings.ts'

const about = (expected: number) => number(Math.round(expected))

/** What is unusual, and why, as the rest of a sentence that begins with what it is of. */
export function findingInWords({ kind, day, key, counted, expected }: Finding): string {
  switch (kind) {
    case 'stopped':
      return `had no scan for ${quantity(counted, 'day')} after ${dayInWords(day)}, where about ${about(expected)} would have been expected. Is it still there?`
    case 'above':
      return `had ${quantity(counted, 'scan')} on ${dayInWords(day)}, where weekday and season make about ${about(expected)} expected.`
    case 'below':
      return `had only ${quantity(counted, 'scan')} on ${dayInWords(day)}, where weekday and season make about ${about(expected)} expected.`
    case 'hour':
      return `had ${quantity(counted, 'scan')} between ${key}:00 and ${String(Number(key) + 1).padStart(2, '0')}:00 on ${dayInWords(day)}, where about ${about(expected)} are expected at that hour.`
    case 'country':
      return `had ${quantity(counted, 'scan')} from ${country(key)} on ${dayInWords(day)} and the day before, and ${number(expected)} in the eight weeks before that.`
    case 'programs':
      return `had ${quantity(counted, 'request')} by crawlers on ${dayInWords(day)}, where about ${about(expected)} a day are usual. They are in no figure.`
  }
}
