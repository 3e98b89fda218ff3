import createCache from '@emotion/cache'
import { CacheProvider } from '@emotion/react'
import CssBaseline from '@mui/material/CssBaseline'
import { ThemeProvider } from '@mui/material/styles'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { App } from './app/index.ts'
import { ApiProblem } from './api/index.ts'
import { nonce, theme } from './ui/index.ts'

const styles = createCache({ key: 'f', nonce, prepend: true })

const queries = new QueryClient({
  defaultOptions: {
    // Without a connection a request fails at once and says so, instead of waiting unseen.
    mutations: { networkMode: 'always' },
    queries: {
      networkMode: 'always',
      staleTime: 30_000,
      // What the office refused it would refuse again; only a lost connection is worth another try.
      retry: (failures, error) =>
        failures < 2 && !(error instanceof ApiProblem && error.problem.status < 500),
    },
  },
})

const root = document.getElementById('root')
if (!root) throw new Error('The page has no place for the application')
createRoot(root).render(
  <StrictMode>
    <CacheProvider value={styles}>
      <ThemeProvider theme={theme} defaultMode="system">
        <CssBaseline />
        <QueryClientProvider client={queries}>
          <App />
        </QueryClientProvider>
      </ThemeProvider>
    </CacheProvider>
  </StrictMode>,
)
