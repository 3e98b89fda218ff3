export {
  campaign,
  CAMPAIGN_SORTS,
  campaignChange,
  campaignCopy,
  campaignsApi,
  newCampaign,
} from './contract.ts'
export type { Campaign, CampaignCopy } from './contract.ts'
export { nextYear, yearForward } from './nextYear.ts'
