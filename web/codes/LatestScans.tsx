import { cityAndCountry, language } from '@flimbo/core/formats'
import { Box, Typography } from '@mui/material'
import { PLACE_NOTE, scansApi } from '@flimbo/core/scans'
import { useAnswer } from '../api/index.ts'
import { When } from '../ui/index.ts'

const SHOWN = 2

/** The newest counted scans of a code: when, where, on what. */
export function LatestScans({ codeId, zone }: { codeId: number; zone: string }) {
  const { data } = useAnswer(scansApi.list, { query: { codeId, pageSize: SHOWN, order: 'desc' } })
  if (!data) return null
  if (data.total === 0)
    return (
      <Typography variant="body2" color="textSecondary">
        No scan yet. Print it, or try it with the phone (T).
      </Typography>
    )
  return (
    <>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }} aria-label="Latest scans">
        {data.rows.map((scan) => (
          <Box
            component="li"
            key={scan.id}
            sx={{
              py: 0.75,
              borderBottom: 1,
              borderColor: 'divider',
              display: 'grid',
              gridTemplateColumns: '84px 1fr',
              gap: 1,
            }}
          >
            <Typography variant="body2" color="textSecondary">
              <When at={scan.at} zone={zone} />
            </Typography>
            <Typography variant="body2">
              {cityAndCountry(scan)}
              <br />
              {[
                scan.device,
                `${scan.system} ${scan.systemVersion}`.trim(),
                scan.browser,
                language(scan.language),
              ]
                .filter(Boolean)
                .join(' · ')}
            </Typography>
          </Box>
        ))}
      </Box>
      <Typography variant="caption" color="textSecondary">
        {PLACE_NOTE}
      </Typography>
    </>
  )
}
