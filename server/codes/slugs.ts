import { randomInt } from 'node:crypto'
import type { EntityManager } from 'typeorm'
import { RESERVED_SLUGS, SLUG_LENGTH, SLUG_SIGNS, slugOf } from '@flimbo/core/codes'
import { Refusal } from '../api/index.ts'
import { tables } from '../database/index.ts'

const TRIES = 20

function generate(): string {
  return slugOf(Array.from({ length: SLUG_LENGTH }, () => randomInt(SLUG_SIGNS.length)))
}

/** A slug nobody has yet, in no sequence. */
export async function freeSlug(manager: EntityManager): Promise<string> {
  for (let i = 0; i < TRIES; i++) {
    const slug = generate()
    if (!RESERVED_SLUGS.includes(slug) && !(await manager.existsBy(tables.codes, { slug }))) return slug
  }
  throw new Refusal('unavailable', 'No free short link was found. Try again, or choose one yourself.')
}

/** Refuses a chosen slug that a code already has, a deleted one too: its print is still out there. @throws Refusal */
export async function claimSlug(manager: EntityManager, slug: string): Promise<string> {
  if (await manager.existsBy(tables.codes, { slug })) {
    const message = `The short link ${slug} is taken. Choose another.`
    throw new Refusal('taken', message, { fields: [{ path: 'slug', message }] })
  }
  return slug
}
