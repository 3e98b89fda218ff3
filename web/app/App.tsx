import { Box, CircularProgress } from '@mui/material'
import { workspaceApi } from '@flimbo/core/workspace'
import { lazy, Suspense, type ReactElement } from 'react'
import { createBrowserRouter, Navigate, Outlet, RouterProvider } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { CampaignFrame, Desk } from '../campaigns/index.ts'
import { PagesScreen } from '../pages/index.ts'
import { ImportScreen, PlanScreen } from '../plan/index.ts'
import { RoutesScreen } from '../routing/index.ts'
import { PrintScreen } from '../symbol/index.ts'
import { SettingsScreen } from '../settings/index.ts'
import { Trouble } from '../ui/index.ts'
import { SessionContext, SetUpScreen, SignInScreen } from '../workspace/index.ts'
import { Shell } from './Shell.tsx'

// The chart library and the decoder are large, and not needed to start working.
const ResultsScreen = lazy(async () => ({ default: (await import('../results/index.ts')).ResultsScreen }))
const PhoneScreen = lazy(async () => ({ default: (await import('../phone/index.ts')).PhoneScreen }))

const later = (screen: ReactElement) => <Suspense fallback={<Waiting />}>{screen}</Suspense>

function Waiting() {
  return <Box sx={{ display: 'grid', placeItems: 'center', minHeight: '40vh' }}><CircularProgress aria-label="Loading" /></Box>
}

const router = createBrowserRouter([
  {
    element: <Shell><Outlet /></Shell>,
    children: [
      { path: '/', element: <Desk /> },
      { path: '/settings/:part?', element: <SettingsScreen /> },
      { path: '/phone', element: later(<PhoneScreen />) },
      {
        path: '/campaigns/:campaignId',
        element: <CampaignFrame />,
        children: [
          { index: true, element: <Navigate to="plan" replace /> },
          { path: 'plan', element: <PlanScreen /> },
          { path: 'import', element: <ImportScreen /> },
          { path: 'routes', element: <RoutesScreen /> },
          { path: 'print', element: <PrintScreen /> },
          { path: 'pages', element: <PagesScreen /> },
          { path: 'results', element: later(<ResultsScreen />) },
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
  if (session.isError && !session.data) return <Trouble error={session.error} again={() => { void session.refetch() }} />
  if (!session.data) return <Waiting />
  if (session.data.state === 'new') return <SetUpScreen />
  if (session.data.state === 'signed-out') return <SignInScreen />
  return (
    <SessionContext value={session.data}>
      <RouterProvider router={router} />
    </SessionContext>
  )
}
