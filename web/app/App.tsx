import { Box, CircularProgress } from '@mui/material'
import { workspaceApi } from '@flimbo/core/workspace'
import { lazy, Suspense, type ReactElement } from 'react'
import { createBrowserRouter, Navigate, Outlet, RouterProvider } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { Desk } from '../desk/index.ts'
import { Trouble } from '../ui/index.ts'
import { SessionContext } from '../session/index.ts'
import { Shell } from './Shell.tsx'

// Only the desk is there at once: every other screen comes when somebody goes there.
const SetUpScreen = lazy(async () => ({ default: (await import('../workspace/index.ts')).SetUpScreen }))
const SignInScreen = lazy(async () => ({ default: (await import('../workspace/index.ts')).SignInScreen }))
const CampaignFrame = lazy(async () => ({ default: (await import('../campaigns/index.ts')).CampaignFrame }))
const PlanScreen = lazy(async () => ({ default: (await import('../plan/index.ts')).PlanScreen }))
const ImportScreen = lazy(async () => ({ default: (await import('../plan/index.ts')).ImportScreen }))
const RoutesScreen = lazy(async () => ({ default: (await import('../routing/index.ts')).RoutesScreen }))
const PrintScreen = lazy(async () => {
  const [{ PrintScreen: Screen }, { StaticBench }] = await Promise.all([
    import('../print/index.ts'),
    import('../staticCodes/index.ts'),
  ])
  return { default: () => <Screen StaticBench={StaticBench} /> }
})
const PrintHere = lazy(async () => ({ default: (await import('../print/index.ts')).PrintHere }))
const PagesScreen = lazy(async () => ({ default: (await import('../pages/index.ts')).PagesScreen }))
const SettingsScreen = lazy(async () => ({ default: (await import('../settings/index.ts')).SettingsScreen }))
const JobsScreen = lazy(async () => ({ default: (await import('../jobs/index.ts')).JobsScreen }))
const ResultsScreen = lazy(async () => {
  const [{ ResultsScreen: Screen }, { AddToReport }] = await Promise.all([
    import('../results/index.ts'),
    import('../reports/index.ts'),
  ])
  return { default: () => <Screen AddToReport={AddToReport} /> }
})
const ReportsScreen = lazy(async () => ({ default: (await import('../reports/index.ts')).ReportsScreen }))
const ReportScreen = lazy(async () => ({ default: (await import('../reports/index.ts')).ReportScreen }))
const GoalsScreen = lazy(async () => ({ default: (await import('../goals/index.ts')).GoalsScreen }))
const LeadsScreen = lazy(async () => ({ default: (await import('../leads/index.ts')).LeadsScreen }))
const PhoneScreen = lazy(async () => ({ default: (await import('../phone/index.ts')).PhoneScreen }))

const later = (screen: ReactElement) => <Suspense fallback={<Waiting />}>{screen}</Suspense>

function Waiting() {
  return (
    <Box sx={{ display: 'grid', placeItems: 'center', minHeight: '40vh' }}>
      <CircularProgress aria-label="Loading" />
    </Box>
  )
}

const router = createBrowserRouter([
  { path: '/print-here/:kind/:id', element: later(<PrintHere />) },
  {
    element: (
      <Shell>
        <Outlet />
      </Shell>
    ),
    children: [
      { path: '/', element: <Desk /> },
      { path: '/settings/:part?', element: later(<SettingsScreen />) },
      { path: '/jobs', element: later(<JobsScreen />) },
      { path: '/results', element: later(<ResultsScreen />) },
      { path: '/reports', element: later(<ReportsScreen />) },
      { path: '/reports/:reportId', element: later(<ReportScreen />) },
      { path: '/leads', element: later(<LeadsScreen />) },
      { path: '/phone', element: later(<PhoneScreen />) },
      {
        path: '/campaigns/:campaignId',
        element: later(<CampaignFrame />),
        children: [
          { index: true, element: <Navigate to="plan" replace /> },
          { path: 'plan', element: later(<PlanScreen />) },
          { path: 'import', element: later(<ImportScreen />) },
          { path: 'routes', element: later(<RoutesScreen />) },
          { path: 'print', element: later(<PrintScreen />) },
          { path: 'pages', element: later(<PagesScreen />) },
          { path: 'results', element: later(<ResultsScreen />) },
          { path: 'reports', element: later(<ReportsScreen />) },
          { path: 'reports/:reportId', element: later(<ReportScreen />) },
          { path: 'goals', element: later(<GoalsScreen />) },
          { path: 'leads', element: later(<LeadsScreen />) },
        ],
      },
      { path: '*', element: <Navigate to="/" replace /> },
    ],
  },
])

/** The application, once it is known who is there. */
export function App() {
  const session = useAnswer(workspaceApi.session, {})
  // What was known of the session holds while the server cannot be reached: nothing that is being typed may be lost.
  if (session.isError && !session.data)
    return (
      <Trouble
        error={session.error}
        retry={() => {
          void session.refetch()
        }}
      />
    )
  if (!session.data) return <Waiting />
  if (session.data.state === 'new') return later(<SetUpScreen />)
  if (session.data.state === 'signed-out') return later(<SignInScreen />)
  return (
    <SessionContext value={session.data}>
      <RouterProvider router={router} />
    </SessionContext>
  )
}
