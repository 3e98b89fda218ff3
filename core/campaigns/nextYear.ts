import { dayForward } from '../time/index.ts'
import type { Campaign } from './contract.ts'

/**
 * A text with its year carried forward: `summer-26` to `summer-27`, `Summer 2026` to `Summer 2027`, `2026/27` to
 * `2027/28`. Only years within two of the given one are taken for years, so that other numbers stay;
 * null where the text has none.
 *
 * @param around the year the text is from, such as that of the campaign's first day
 */
export function yearForward(text: string, around: number): string | null {
  let found = false
  const next = text.replace(/(?<!\d)(?:\d{4}|\d{2})(?!\d)/g, (digits) => {
    const year = digits.length === 4 ? Number(digits) : Math.floor(around / 100) * 100 + Number(digits)
    if (Math.abs(year - around) > 2) return digits
    found = true
    return digits.length === 4 ? String(year + 1) : String((year + 1) % 100).padStart(2, '0')
  })
  return found ? next : null
}

/** What next year's campaign is usually called and when it runs, for a person to look over. */
export function nextYear(
  campaign: Pick<Campaign, 'name' | 'utmCampaign' | 'startsOn' | 'endsOn'>,
  thisYear: number,
): Pick<Campaign, 'name' | 'utmCampaign' | 'startsOn' | 'endsOn'> {
  const around = Number((campaign.startsOn ?? campaign.endsOn ?? String(thisYear)).slice(0, 4))
  return {
    name: yearForward(campaign.name, around) ?? `${campaign.name} ${String(around + 1)}`,
    utmCampaign:
      yearForward(campaign.utmCampaign, around) ??
      `${campaign.utmCampaign}-${String((around + 1) % 100).padStart(2, '0')}`,
    startsOn: campaign.startsOn === null ? null : dayForward(campaign.startsOn),
    endsOn: campaign.endsOn === null ? null : dayForward(campaign.endsOn),
  }
}
