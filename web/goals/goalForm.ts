import { goalSettings, type GoalKind, type GoalRow, type GoalSettings } from '@flimbo/core/goals'
import { fieldFaults } from '@flimbo/core/api'
import { readMoney } from '@flimbo/core/plan'
import { plainName } from '@flimbo/core/tagging'

/** A goal as it is typed: its value is text until it is saved. */
export interface GoalDraft extends Omit<GoalSettings, 'value'> {
  readonly value: string
}

export const NEW_GOAL: GoalDraft = {
  name: '',
  kind: 'address',
  key: '',
  pattern: '',
  selector: '',
  value: '',
  counts: 'scan',
  signedOnly: false,
  isOn: true,
}

export const draftOf = ({
  name,
  kind,
  key,
  pattern,
  selector,
  value,
  counts,
  signedOnly,
  isOn,
}: GoalRow) => ({
  ...{ name, kind, key, pattern, selector, counts, signedOnly, isOn },
  value: value === null ? '' : String(value),
})

/** A key made of a name, as long as nobody typed one. */
export const keyOfName = (name: string): string => plainName(name, 40)

/** Whether browsers understand a selector; the server has none to ask. */
function isSelector(selector: string): boolean {
  try {
    document.createDocumentFragment().querySelector(selector)
    return true
  } catch {
    return false
  }
}

/** What a kind has no use for is not sent. */
const ofKind = (kind: GoalKind, of: GoalKind, text: string) => (kind === of ? text : '')

/** An amount as it is typed, to a thousandth; NaN where it is none. */
function amountOf(typed: string): number {
  const read = readMoney(typed, 'comma')
  return read.ok ? read.value : NaN
}

/** The settings that are typed, or what is wrong with them, by field. */
export function readDraft(draft: GoalDraft): {
  settings: GoalSettings | null
  faults: ReadonlyMap<string, string>
} {
  const { kind, value, pattern, selector, signedOnly, key, name } = draft
  const read = goalSettings.safeParse({
    ...draft,
    key: key === '' ? keyOfName(name) : key,
    value: value.trim() === '' ? null : amountOf(value),
    pattern: ofKind(kind, 'address', pattern),
    selector: ofKind(kind, 'click', selector),
    signedOnly: kind === 'sent' && signedOnly,
  })
  const faults = new Map(
    read.success ? [] : fieldFaults(read.error).map(({ path, message }) => [path, message]),
  )
  if (kind === 'click' && selector !== '' && !isSelector(selector))
    faults.set('selector', 'This is no CSS selector. Write one such as #buy or button.order.')
  return { settings: read.success && faults.size === 0 ? read.data : null, faults }
}
