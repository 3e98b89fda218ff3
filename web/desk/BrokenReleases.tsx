import { printApi } from '@flimbo/core/print'
import { useAnswer } from '../api/index.ts'
import { NoteList } from '../ui/index.ts'

/** Released pieces whose printed link leads nobody on: paper cannot be called back, so somebody must see to them. */
export function BrokenReleases() {
  const { rows, total } = useAnswer(printApi.broken, {}).data ?? { rows: [], total: 0 }
  return (
    <NoteList
      title="Printed, and not working"
      sx={{ borderColor: 'warning.main', borderLeftWidth: 4 }}
      total={total}
      notes={rows.map(({ codeId, campaignId, campaignName, name, link, why }) => ({
        key: `${String(codeId)} ${link}`,
        to: `/campaigns/${String(campaignId)}/plan?code=${String(codeId)}`,
        about: `${campaignName}: ${name}`,
        rest: ` (${link}). ${why}`,
      }))}
    />
  )
}
