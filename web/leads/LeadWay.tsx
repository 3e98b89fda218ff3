import { Box, Link, Typography } from '@mui/material'
import { country, moment } from '@flimbo/core/formats'
import { languageName } from '@flimbo/core/conditions'
import type { Lead } from '@flimbo/core/leads'
import { MAIL_KIND_NAMES, MAIL_STATE_NAMES, type MailKind } from '@flimbo/core/mail'
import type { ReactNode } from 'react'
import { Link as RouterLink } from 'react-router'

const MAILED: Readonly<Record<MailKind, string>> = {
  ...MAIL_KIND_NAMES,
  confirm: 'Asked by mail whether the address is theirs',
  answer: 'Thanked by mail',
}

/** What followed: mails, and that they confirmed their address. */
function afterwards({ mails, confirmBy, confirmedAt }: Lead, zone: string): Stop[] {
  const stops = mails.map(({ kind, state, at, settledAt, reply }) => ({
    // What waits until the address is confirmed comes after that.
    at: state === 'unconfirmed' ? Infinity : (settledAt ?? at),
    name: 'Mail',
    text: MAILED[kind],
    more:
      state === 'sent'
        ? moment(settledAt ?? at, zone)
        : [MAIL_STATE_NAMES[state], reply].filter((each) => each !== '').join(': '),
  }))
  const confirmed =
    confirmedAt === null
      ? []
      : [{ at: confirmedAt, name: 'Address', text: 'Confirmed', more: moment(confirmedAt, zone) }]
  const open =
    confirmBy !== null && confirmedAt === null
      ? [
          {
            at: confirmBy,
            name: 'Address',
            text: 'Not confirmed',
            more: `Can be until ${moment(confirmBy, zone)}`,
          },
        ]
      : []
  return [...stops, ...confirmed, ...open].sort((a, b) => a.at - b.at)
}

interface Stop {
  readonly name: string
  readonly text: ReactNode
  readonly more: string
}

/** The way somebody came, as stops on a line: piece, place, page, answer. */
export function LeadWay({ lead, zone }: { lead: Lead; zone: string }) {
  const { codeId, codeName, routeId, routeName, pageName, city, region, device, system, language, utm, at } =
    lead
  const place = [city, region === city ? '' : region, lead.country === '' ? '' : country(lead.country)]
    .filter(Boolean)
    .join(', ')
  const tags = Object.entries(utm).filter(([, value]) => value !== '')
  const stops: Stop[] = [
    {
      name: 'Piece',
      text: (
        <Link component={RouterLink} to={`/campaigns/${String(lead.campaignId)}/plan?code=${String(codeId)}`}>
          {codeName}
        </Link>
      ),
      more: tags.map(([name, value]) => `${name} ${value}`).join(', '),
    },
    {
      name: 'Place',
      text: place || 'Not known',
      more: place === '' ? '' : 'Approximate: of the network, not of the person',
    },
    {
      name: 'Device',
      text: [device, system].filter(Boolean).join(', '),
      more: `Reads ${languageName(language)}`,
    },
    {
      name: 'Route',
      text: (
        <Link
          component={RouterLink}
          to={`/campaigns/${String(lead.campaignId)}/routes?route=${String(routeId)}`}
        >
          {routeName}
        </Link>
      ),
      more: '',
    },
    { name: 'Page', text: pageName || 'A page that is gone', more: '' },
    { name: 'Answer', text: moment(at, zone), more: '' },
    ...afterwards(lead, zone),
  ]
  return (
    <Box>
      <Typography variant="h3" sx={{ mb: 0.5 }}>
        How they came
      </Typography>
      <Box
        component="ol"
        aria-label="How they came"
        sx={{ listStyle: 'none', m: 0, p: 0, borderLeft: 2, borderColor: 'primary.main', ml: 0.75 }}
      >
        {stops.map(({ name, text, more }, i) => (
          <Box
            key={i}
            component="li"
            sx={{
              position: 'relative',
              pl: 2,
              pb: 1,
              '&::before': {
                content: '""',
                position: 'absolute',
                left: -6,
                top: 5,
                width: 10,
                height: 10,
                borderRadius: '50%',
                border: 2,
                borderColor: 'primary.main',
                bgcolor: 'background.paper',
              },
            }}
          >
            <Typography variant="caption" color="textSecondary" component="p">
              {name}
            </Typography>
            <Typography variant="body2" component="p">
              {text}
            </Typography>
            {more !== '' && (
              <Typography variant="caption" color="textSecondary" component="p">
                {more}
              </Typography>
            )}
          </Box>
        ))}
      </Box>
    </Box>
  )
}
