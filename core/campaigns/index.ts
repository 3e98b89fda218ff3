export { calendarDay, campaign, CAMPAIGN_SORTS, campaignChange, campaignsApi, newCampaign } from './contract.ts'
export type { Campaign } from './contract.ts'
