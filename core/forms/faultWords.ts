import { fill, type Words } from '../words/index.ts'
import type { AnswerFault } from './readAnswer.ts'

/** What is wrong with an answer, as its language says it. */
export function faultWords(fault: AnswerFault, { forms }: Pick<Words, 'forms'>, language: string): string {
  const number = (value: number) =>
    new Intl.NumberFormat(language, { maximumFractionDigits: 6 }).format(value)
  const day = (text: string) =>
    new Intl.DateTimeFormat(language, { dateStyle: 'long', timeZone: 'UTC' }).format(
      new Date(`${text}T00:00Z`),
    )
  switch (fault.code) {
    case 'tooLong':
      return fill(forms.tooLong, { n: number(fault.length), most: number(fault.most) })
    case 'least':
    case 'most':
    case 'leastChoices':
    case 'mostChoices':
    case 'decimals':
      return fill(forms[fault.code], { n: number(fault.bound) })
    case 'dateFirst':
    case 'dateLast':
      return fill(forms[fault.code], { date: day(fault.day) })
    case 'fileSize':
      return fill(forms.fileSize, { size: megabytesIn(fault.megabytes, language) })
    case 'other':
      return forms.otherWhich
    case 'missing':
    case 'disagreed':
    case 'mail':
    case 'phone':
    case 'number':
    case 'whole':
    case 'date':
    case 'choice':
    case 'rank':
    case 'fileType':
      return forms[fault.code]
  }
}

/** A size as a language writes it: 10 MB. */
export const megabytesIn = (megabytes: number, language: string): string =>
  new Intl.NumberFormat(language, { style: 'unit', unit: 'megabyte' }).format(megabytes)
