import { randomInt } from 'node:crypto'
import type { EntityManager } from 'typeorm'
import { RESERVED_SLUGS, SLUG_SIGNS, slugOf, slugsLike } from '@flimbo/core/codes'
import { Refusal } from '../api/index.ts'
import { findAmong, tables } from '../database/index.ts'

const TRIES = 20

function generate(length: number): string {
  return slugOf(Array.from({ length }, () => randomInt(SLUG_SIGNS.length)))
}

/** Which of some slugs were ever issued on a domain, and to which code: those of deleted and renamed codes too, whose print is still out there. */
export async function slugHolders(
  manager: EntityManager,
  domainId: number,
  slugs: readonly string[],
): Promise<Map<string, number>> {
  return new Map(
    (await findAmong(manager, tables.shortLinks, 'slug', slugs, { domainId })).map(({ slug, codeId }) => [
      slug,
      codeId,
    ]),
  )
}

/** Slugs nobody has yet, in no sequence. `length` is how many signs each has, `besides` are some that are about to be issued. */
export async function freeSlugs(
  manager: EntityManager,
  domainId: number,
  n: number,
  length: number,
  besides: ReadonlySet<string> = new Set(),
): Promise<string[]> {
  const free = new Set<string>()
  for (let i = 0; i < TRIES && free.size < n; i++) {
    const wished = new Set<string>()
    for (let j = 0; j < (n - free.size) * 2 && wished.size < n - free.size; j++) {
      const slug = generate(length)
      if (!free.has(slug) && !besides.has(slug) && !RESERVED_SLUGS.includes(slug)) wished.add(slug)
    }
    const held = await slugHolders(manager, domainId, [...wished])
    for (const slug of wished) if (!held.has(slug)) free.add(slug)
  }
  if (free.size < n)
    throw new Refusal(
      'unavailable',
      `Not enough short links of ${String(length)} characters are free. Let them be longer, under Settings.`,
    )
  return [...free]
}

/** Refuses a short link that was issued before. */
export function slugTaken(slug: string): Refusal {
  const message = `The short link ${slug} is taken. Choose another.`
  return new Refusal('taken', message, { fields: [{ path: 'slug', message }] })
}

/** Free slugs like one that is taken, three at most. */
export async function similarFreeSlugs(
  manager: EntityManager,
  domainId: number,
  slug: string,
  year: number,
): Promise<string[]> {
  const like = slugsLike(slug, year)
  const held = await slugHolders(manager, domainId, like)
  return like.filter((each) => !held.has(each)).slice(0, 3)
}
