import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { createMemoryRouter, Link, RouterProvider } from 'react-router'
import { afterEach, expect, it } from 'vitest'
import { around } from '../tests/office.tsx'
import { LeaveGuard } from './index.ts'

afterEach(cleanup)

function open(isChanged: boolean, param?: string) {
  const element = (
    <>
      <LeaveGuard isChanged={isChanged} what="goal" {...(param === undefined ? {} : { param })} />
      <Link to="/results">Results</Link>
      <Link to="/goals?goal=5">Another</Link>
      <Link to="/goals?goal=4&days=7">The same</Link>
    </>
  )
  const router = createMemoryRouter(
    [
      { path: '/goals', element },
      { path: '/results', element: null },
    ],
    { initialEntries: ['/goals?goal=4'] },
  )
  render(<RouterProvider router={router} />, { wrapper: around })
  const place = () => router.state.location.pathname + router.state.location.search
  const follow = (link: string) => {
    fireEvent.click(screen.getByRole('link', { name: link }))
    return place()
  }
  return { follow, place }
}
const closesUnasked = () => window.dispatchEvent(new Event('beforeunload', { cancelable: true }))

it('lets go whoever changed nothing', () => {
  const { follow } = open(false, 'goal')
  expect(closesUnasked()).toBe(true)
  expect(follow('Another')).toBe('/goals?goal=5')
  expect(follow('Results')).toBe('/results')
})

it('asks before another screen, or another thing of the same one, and goes on if that is wanted', async () => {
  const { follow, place } = open(true, 'goal')
  expect(closesUnasked()).toBe(false)
  expect(follow('The same')).toBe('/goals?goal=4&days=7')
  expect(follow('Another')).toBe('/goals?goal=4&days=7')
  await screen.findByText('What you changed in this goal since it was saved is lost.')
  fireEvent.click(screen.getByRole('button', { name: 'Discard changes' }))
  await waitFor(() => {
    expect(place()).toBe('/goals?goal=5')
  })
})

it('asks for nothing but another screen where it is not told what says which thing is open', () => {
  const { follow } = open(true)
  expect(follow('Another')).toBe('/goals?goal=5')
  expect(follow('Results')).toBe('/goals?goal=5')
})
