import type { Domains } from '../domains/index.ts'
import type { Lookup } from '../routing/index.ts'
import type { Forget } from '../line/index.ts'

/** Forgets what a front door is told to; resolves once its next scan sees what is stored. */
export async function applyForget(
  { lookup, domains }: { lookup: Lookup; domains: Pick<Domains, 'refresh'> },
  forget: Forget,
): Promise<void> {
  switch (forget.what) {
    case 'codes':
      lookup.forget(forget.links)
      lookup.forgetRoutes(new Set(forget.routeIds))
      return
    case 'routes':
      lookup.forgetRoutes(new Set(forget.routeIds))
      return
    case 'domains':
      await domains.refresh()
      lookup.forgetAll()
      return
    case 'all':
      lookup.forgetAll()
  }
}
