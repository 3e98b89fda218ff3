import { UNITS, dayIn, isKnownDay, shiftDay, type Unit } from '@flimbo/core/time'

/** Days a choice of period stands for, counted back from today. */
export const PRESETS = [
  { id: 'today', label: 'Today', days: 1 },
  { id: '7', label: 'Last 7 days', days: 7 },
  { id: '30', label: 'Last 30 days', days: 30 },
  { id: '90', label: 'Last 90 days', days: 90 },
  { id: '365', label: 'Last 365 days', days: 365 },
] as const

export interface Period {
  readonly preset: string
  readonly from: string
  readonly to: string
  readonly unit: Unit | undefined
  readonly compare: boolean
}

const USUAL = '30'

/** The period an address names; what it does not name is the last thirty days. */
export function periodOf(address: URLSearchParams, zone: string, now: number): Period {
  const unit = UNITS.find((each) => each === address.get('unit'))
  const compare = address.get('compare') === 'yes'
  const [from, to] = [address.get('from') ?? '', address.get('to') ?? '']
  if (isKnownDay(from) && isKnownDay(to) && from <= to) return { preset: 'custom', from, to, unit, compare }
  const preset = PRESETS.find(({ id }) => id === (address.get('days') ?? USUAL)) ?? PRESETS[2]
  const today = dayIn(zone, now)
  return { preset: preset.id, from: shiftDay(today, 1 - preset.days), to: today, unit, compare }
}
