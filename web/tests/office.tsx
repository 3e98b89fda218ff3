import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { problemOf } from '@flimbo/core/api'
import type { ReactNode } from 'react'
import { vi } from 'vitest'

export interface Asked {
  readonly method: string
  /** Without `/api`, with its query. */
  readonly path: string
  readonly body: unknown
}

/** An office in place of `fetch`: what it was asked, and what it answers. A thrown `Error` is a lost connection. */
export function startOffice(answer: (asked: Asked) => unknown) {
  const asked: Asked[] = []
  vi.stubGlobal('fetch', async (address: string, { method = 'GET', body }: RequestInit = {}) => {
    const request: Asked = {
      method,
      path: address.replace(/^\/api/, ''),
      body: typeof body === 'string' ? JSON.parse(body) : undefined,
    }
    asked.push(request)
    const answered = await answer(request)
    return answered instanceof Response ? answered : Response.json(answered)
  })
  return { asked, writes: () => asked.filter(({ method }) => method !== 'GET') }
}

/** What an office answers to a save that started from an older version than what is stored. */
export function conflict(current: unknown): Response {
  const problem = problemOf('conflict', 'Someone saved this.', { current })
  return Response.json(problem, { status: problem.status })
}

/** What an office answers to what it does not take. */
export function refusal(detail: string): Response {
  const problem = problemOf('invalid', detail)
  return Response.json(problem, { status: problem.status })
}

/** What stands around the screens; each test has queries of its own. */
export function around({ children }: { children: ReactNode }) {
  return <QueryClientProvider client={queries()}>{children}</QueryClientProvider>
}

const queries = () =>
  new QueryClient({
    defaultOptions: {
      queries: { retry: false, networkMode: 'always' },
      mutations: { networkMode: 'always' },
    },
  })
