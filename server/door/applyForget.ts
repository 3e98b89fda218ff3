import type { Domains } from '../domains/index.ts'
import type { Lookup } from '../routing/index.ts'
import type { PageShelf } from '../pages/index.ts'
import type { GoalShelf } from '../goals/index.ts'
import type { Forget } from '../line/index.ts'

/** Forgets what a front door is told to; resolves once its next scan sees what is stored. */
export async function applyForget(
  {
    lookup,
    domains,
    shelf,
    goalShelf,
  }: {
    goalShelf: Pick<GoalShelf, 'forget'>
    lookup: Lookup
    domains: Pick<Domains, 'refresh'>
    shelf: Pick<PageShelf, 'forget'>
  },
  forget: Forget,
): Promise<void> {
  switch (forget.what) {
    case 'codes':
      lookup.forget(forget.links)
      goalShelf.forget()
      lookup.forgetRoutes(new Set(forget.routeIds))
      return
    case 'routes':
      lookup.forgetRoutes(new Set(forget.routeIds))
      return
    case 'pages':
      shelf.forget()
      return
    case 'goals':
      goalShelf.forget()
      return
    case 'domains':
      await domains.refresh()
      lookup.forgetAll()
      return
    case 'all':
      shelf.forget()
      goalShelf.forget()
      lookup.forgetAll()
  }
}
