import CloseIcon from '@mui/icons-material/Close'
import { Box, IconButton, Typography } from '@mui/material'
import { brokenExpectations, withoutQuery, type Compiled, type Expectation } from '@flimbo/core/routing'

/** Rehearsals that were kept, each with whether what is prepared still meets it. Publishing runs them again. */
export function Expectations({
  expectations,
  compiled,
  now,
  remove,
}: {
  expectations: readonly Expectation[]
  compiled: Compiled | null
  now: number
  remove: (id: string) => void
}) {
  if (expectations.length === 0)
    return (
      <Typography color="textSecondary">
        None is kept yet. Make a test scan, and keep where it leads; publishing then says when that would
        change.
      </Typography>
    )
  return (
    <Box component="ul" aria-label="Expectations" sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {expectations.map((each) => {
        const [broken] = compiled ? brokenExpectations([each], compiled.code, compiled.route, now) : []
        return (
          <Box
            component="li"
            key={each.id}
            sx={{
              display: 'flex',
              alignItems: 'flex-start',
              gap: 1,
              py: 0.5,
              borderBottom: 1,
              borderColor: 'divider',
            }}
          >
            <Typography aria-hidden sx={{ color: broken ? 'warning.main' : 'primary.main' }}>
              {broken ? '▲' : '●'}
            </Typography>
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <Typography>{each.name}</Typography>
              <Typography
                variant="body2"
                color={broken ? 'warning' : 'textSecondary'}
                sx={{ overflowWrap: 'anywhere' }}
              >
                {broken
                  ? `would lead to ${broken.would} instead of ${broken.expected}`
                  : `leads to ${withoutQuery(each.leads)}`}
              </Typography>
            </Box>
            <IconButton
              size="small"
              aria-label={`Delete the expectation ${each.name}`}
              onClick={() => {
                remove(each.id)
              }}
            >
              <CloseIcon fontSize="inherit" />
            </IconButton>
          </Box>
        )
      })}
    </Box>
  )
}
