import { meanInterval, type Spread } from '@flimbo/core/results'

export const decimal = (value: number) =>
  new Intl.NumberFormat('en-GB', { maximumFractionDigits: 2 }).format(value)

/** A mean with its 95 % interval, where there is one. */
export function meanWithin(spread: Spread): string {
  const interval = meanInterval(spread)
  const mean = decimal(spread.mean)
  return interval ? `${mean} (${decimal(interval.low)} to ${decimal(interval.high)})` : mean
}
