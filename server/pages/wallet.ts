import { createPrivateKey, X509Certificate } from 'node:crypto'
import { z } from 'zod'
import type { EntityManager } from 'typeorm'
import { walletApi, walletSetting, type WalletSetting, type WalletState } from '@flimbo/core/pages'
import { mount, wrongField, type Mounts } from '../api/index.ts'
import type { Database } from '../database/index.ts'
import type { Doors } from '../line/index.ts'
import { readSetting, writeSetting, type Section } from '../workspace/index.ts'

interface Stored {
  readonly wallet: WalletSetting | null
}
/** The section of a workspace's settings that it stands in. */
export const WALLET: Section<Stored> = {
  name: 'wallet',
  schema: z.object({ wallet: walletSetting.nullable() }),
  fallback: { wallet: null },
}

/** What a workspace signs wallet passes with; null where it stored nothing. */
export async function walletOf(read: EntityManager, workspaceId: number): Promise<WalletSetting | null> {
  return (await readSetting(read, workspaceId, WALLET)).value.wallet
}

/** @throws Refusal, at the field that is wrong */
function checkWallet({ certificate, key, keyPassword, authority }: WalletSetting): void {
  const read = (field: string, text: string) => {
    try {
      return new X509Certificate(text)
    } catch {
      throw wrongField(
        `value.${field}`,
        'This certificate could not be read. Export it as PEM, and paste all of it.',
      )
    }
  }
  const own = read('certificate', certificate)
  read('authority', authority)
  if (Date.parse(own.validTo) < Date.now())
    throw wrongField('value.certificate', 'This certificate has expired. Have a new one issued.')
  let isPair: boolean
  try {
    isPair = own.checkPrivateKey(createPrivateKey({ key, passphrase: keyPassword }))
  } catch {
    throw wrongField('value.key', 'This key could not be read. Check its password, and paste all of it.')
  }
  if (!isPair)
    throw wrongField('value.key', 'This key is another certificate’s. Paste the one that belongs to it.')
}

/** With what wallet passes are signed. The key goes in, and never out. */
export function walletEndpoints(
  mounts: Mounts,
  { database, doors }: { database: Database; doors: Doors },
): void {
  async function stateOf(workspaceId: number): Promise<WalletState> {
    const { value, version } = await readSetting(database.read, workspaceId, WALLET)
    const { wallet } = value
    if (wallet === null) return { version, stored: null }
    const { passType, teamId, organisation, certificate } = wallet
    const expiresAt = Date.parse(new X509Certificate(certificate).validTo)
    return { version, stored: { passType, teamId, organisation, expiresAt } }
  }

  mount(mounts, walletApi.get, ({ who }) => stateOf(who.workspace.id))

  mount(mounts, walletApi.change, async ({ body: { version, value }, who }) => {
    if (value) checkWallet(value)
    await writeSetting(database, who.workspace.id, WALLET, { version, value: { wallet: value } })
    await doors.forget({ what: 'pages' })
    return stateOf(who.workspace.id)
  })
}
