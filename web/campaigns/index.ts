export { CampaignFrame, useCampaign } from './CampaignFrame.tsx'
export { Desk } from './Desk.tsx'
