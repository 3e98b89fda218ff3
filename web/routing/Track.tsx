import { Box, ButtonBase, Typography } from '@mui/material'
import { number, share } from '@flimbo/core/formats'
import { Fragment, type KeyboardEvent, type ReactNode } from 'react'

export interface TrackProps {
  readonly place: string
  readonly sentence: string
  readonly aside?: string | undefined
  readonly leads: string
  /** Null where they are counted elsewhere. */
  readonly scans: number | null
  readonly all: number
  readonly isLit: boolean
  readonly isChosen: boolean
  readonly isResting?: boolean
  readonly isLast?: boolean
  readonly choose: () => void
  readonly onKeyDown?: (event: KeyboardEvent) => void
  readonly handle?: ReactNode
}

/** One line of the signal plan: the line the scans come along, its switch, who leaves here, and where to. */
export function Track({
  place,
  sentence,
  aside,
  leads,
  scans,
  all,
  isLit,
  isChosen,
  isResting = false,
  isLast = false,
  choose,
  onKeyDown,
  handle,
}: TrackProps) {
  const unlit = isResting ? 'divider' : 'primary.main'
  const colour = isLit ? 'warning.main' : unlit
  return (
    <Box
      sx={{
        display: 'flex',
        alignItems: 'stretch',
        bgcolor: isChosen ? 'action.selected' : undefined,
        borderBottom: isLast ? 0 : 1,
        borderColor: 'divider',
      }}
    >
      <Box sx={{ width: 28, display: 'flex', alignItems: 'center', justifyContent: 'center', flexShrink: 0 }}>
        {handle}
      </Box>
      <Switch colour={colour} isLit={isLit} isLast={isLast} />
      <ButtonBase
        onClick={choose}
        onKeyDown={onKeyDown}
        aria-current={isChosen}
        aria-keyshortcuts={onKeyDown ? 'Alt+ArrowUp Alt+ArrowDown' : undefined}
        sx={{
          flex: 1,
          minWidth: 0,
          display: 'grid',
          gridTemplateColumns: 'minmax(0, 1fr) 84px minmax(0, 0.8fr)',
          gap: 1.5,
          alignItems: 'center',
          textAlign: 'left',
          py: 1,
          pr: 2,
          pl: 0.5,
          minHeight: 52,
          fontFamily: 'inherit',
        }}
      >
        <Box sx={{ minWidth: 0 }}>
          <Typography
            sx={{
              fontWeight: place === '' ? 650 : 400,
              opacity: isResting ? 0.75 : 1,
              overflowWrap: 'anywhere',
            }}
          >
            {place !== '' && (
              <Box component="span" sx={{ color: 'text.secondary', mr: 0.5 }}>
                {place}{' '}
              </Box>
            )}
            {sentence}
          </Typography>
          {aside !== undefined && (
            <Typography variant="body2" color="textSecondary">
              {aside}
            </Typography>
          )}
        </Box>
        {scans === null ? <span /> : <Share scans={scans} all={all} isLit={isLit} />}
        <Box sx={{ display: 'flex', gap: 0.75, minWidth: 0 }}>
          <Box component="span" aria-hidden sx={{ color: isLit ? 'warning.main' : 'text.secondary' }}>
            →
          </Box>
          <Typography
            variant="mono"
            sx={{
              minWidth: 0,
              overflowWrap: 'anywhere',
              display: '-webkit-box',
              WebkitLineClamp: 3,
              WebkitBoxOrient: 'vertical',
              overflow: 'hidden',
            }}
          >
            {breakable(leads)}
          </Typography>
        </Box>
      </ButtonBase>
    </Box>
  )
}

/** An address that breaks after its slashes before it breaks within a word. */
function breakable(address: string): ReactNode {
  return address.split(/(?<=\/)(?!\/)/).map((part, i) => (
    <Fragment key={i}>
      {part}
      <wbr />
    </Fragment>
  ))
}

/** The line that scans come along, and the switch by which they leave it. */
function Switch({ colour, isLit, isLast }: { colour: string; isLit: boolean; isLast: boolean }) {
  return (
    <Box aria-hidden sx={{ width: 30, position: 'relative', flexShrink: 0 }}>
      <Box
        sx={{
          position: 'absolute',
          left: 8,
          top: 0,
          bottom: isLast ? '50%' : 0,
          width: 3,
          bgcolor: 'primary.main',
        }}
      />
      <Box
        sx={{
          position: 'absolute',
          left: 8,
          right: 0,
          top: 'calc(50% - 1.5px)',
          height: 3,
          bgcolor: colour,
          borderTopRightRadius: 3,
        }}
      />
      <Box
        sx={{
          position: 'absolute',
          left: 4,
          top: 'calc(50% - 5.5px)',
          width: 11,
          height: 11,
          borderRadius: '50%',
          border: 2,
          borderColor: colour,
          bgcolor: isLit ? 'warning.main' : 'background.paper',
        }}
      />
    </Box>
  )
}

/** How many scans left here, and which share of all. */
function Share({ scans, all, isLit }: { scans: number; all: number; isLit: boolean }) {
  return (
    <Box sx={{ textAlign: 'right' }}>
      <Typography variant="body2">
        {number(scans)}{' '}
        <Box component="span" sx={{ color: 'text.secondary' }}>
          {share(scans, all)}
        </Box>
      </Typography>
      <Box aria-hidden sx={{ height: 4, bgcolor: 'divider', borderRadius: 1, overflow: 'hidden', mt: 0.25 }}>
        <Box
          sx={{
            height: 1,
            width: `${String(all === 0 ? 0 : (100 * scans) / all)}%`,
            bgcolor: isLit ? 'warning.main' : 'primary.main',
          }}
        />
      </Box>
    </Box>
  )
}
