import { Box, Stack, Tab, Tabs, Typography } from '@mui/material'
import { Link as RouterLink, Navigate, useParams } from 'react-router'
import { ChannelTable } from './ChannelTable.tsx'
import { DomainsPart } from './DomainsPart.tsx'
import { FilesPart } from './FilesPart.tsx'
import { HouseRulesForm } from './HouseRulesForm.tsx'
import { KeepScansForm } from './KeepScansForm.tsx'
import { GoalSitePart } from './GoalSitePart.tsx'
import { HouseStylesPart } from './HouseStylesPart.tsx'
import { PageStylesPart } from '../pages/index.ts'
import { SharedLanes } from '../routing/index.ts'
import { LeadStatesPart } from './LeadStatesPart.tsx'
import { MailPart } from './MailPart.tsx'
import { WatchesPart } from '../watches/index.ts'
import { LinksForm } from './LinksForm.tsx'
import { WalletPart } from './WalletPart.tsx'
import { VisitTagsPart } from './VisitTagsPart.tsx'

const PARTS = {
  tags: 'House rules for tags',
  channels: 'Channels',
  lanes: 'Shared lanes',
  visits: 'Visit tags',
  domains: 'Domains',
  links: 'Short links and currency',
  styles: 'House styles',
  pages: 'Page styles',
  wallet: 'Wallet passes',
  goals: 'Goals on sites',
  leads: 'States of leads',
  mail: 'Mail',
  watches: 'What you are told',
  files: 'Files',
  scans: 'Single scans',
} as const
type Part = keyof typeof PARTS

/** What a workspace decides once for all its campaigns. */
export function SettingsScreen() {
  const { part = 'tags' } = useParams()
  if (!(part in PARTS)) return <Navigate to="/settings/tags" replace />
  const shown = part as Part
  return (
    <Box sx={{ p: 2, width: '100%', maxWidth: 1280, mx: 'auto' }}>
      <Typography variant="h1" sx={{ mb: 1 }}>
        Settings
      </Typography>
      <Tabs
        value={shown}
        aria-label="Parts of the settings"
        variant="scrollable"
        scrollButtons="auto"
        sx={{ mb: 2 }}
      >
        {Object.entries(PARTS).map(([value, name]) => (
          <Tab key={value} value={value} label={name} component={RouterLink} to={`/settings/${value}`} />
        ))}
      </Tabs>
      <Stack spacing={2}>
        {shown === 'tags' && <HouseRulesForm />}
        {shown === 'channels' && <ChannelTable />}
        {shown === 'lanes' && <SharedLanes />}
        {shown === 'visits' && <VisitTagsPart />}
        {shown === 'domains' && <DomainsPart />}
        {shown === 'links' && <LinksForm />}
        {shown === 'styles' && <HouseStylesPart />}
        {shown === 'pages' && <PageStylesPart />}
        {shown === 'wallet' && <WalletPart />}
        {shown === 'goals' && <GoalSitePart />}
        {shown === 'watches' && <WatchesPart />}
        {shown === 'leads' && <LeadStatesPart />}
        {shown === 'mail' && <MailPart />}
        {shown === 'files' && <FilesPart />}
        {shown === 'scans' && <KeepScansForm />}
      </Stack>
    </Box>
  )
}
