/** Where the reports of a campaign, or all of them, are. */
export const reportsPath = (campaignId: number | null): string =>
  campaignId === null ? '/reports' : `/campaigns/${String(campaignId)}/reports`

/** Where one report is. */
export const reportPath = (id: number, campaignId: number | null): string =>
  `${reportsPath(campaignId)}/${String(id)}`
