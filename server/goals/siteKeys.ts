import { idSigner, signatureOf } from '../signing/index.ts'

/** All that belongs to goals on the front door begins so: no short link has such a sign. */
export const GOALS_PATH = '/~goals/'

/** What the sites of a workspace report under, and what they sign their calls with. Nothing of it is stored. */
export function siteKeys(key: Buffer) {
  const signer = idSigner(key, ' site')
  return {
    keyOf: (workspaceId: number): string => signer.signed(workspaceId),
    workspaceOf: (given: string): number | null => signer.read(given),
    /** @param number goes up when the secret is replaced */
    secretOf: (workspaceId: number, number: number): string =>
      signatureOf(key, `secret ${String(workspaceId)} ${String(number)}`),
  }
}
export type SiteKeys = ReturnType<typeof siteKeys>

/** Where on the front door the scripts of a workspace's sites report. */
export const siteBase = (door: string, key: string): string => `${door}${GOALS_PATH}${key}`

/** Where on the front door the sites of a workspace find what they need. */
export function siteAddresses(door: string, key: string): { script: string; image: string; call: string } {
  const base = siteBase(door, key)
  return { script: `${base}.js`, image: `${base}.gif`, call: `${base}/calls` }
}
