export { CampaignDialog } from './CampaignDialog.tsx'
export { CampaignFrame, useCampaign, useCampaignIfAny } from './CampaignFrame.tsx'
