export { CampaignDialog } from './CampaignDialog.tsx'
export { CampaignFrame, useCampaign } from './CampaignFrame.tsx'
