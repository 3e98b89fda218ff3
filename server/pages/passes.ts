import type { WalletSetting } from '@flimbo/core/pages'
import { callThread, type CalledThread, type Calls } from '../threads/index.ts'

/** What stands on a wallet pass of a contact. */
export interface PassCard {
  readonly name: string
  readonly role: string
  readonly organisation: string
  readonly phone: string
  readonly email: string
  /** What the symbol on it leads to. */
  readonly link: string
  /** The same for as long as it is the same card. */
  readonly serial: string
}

export interface PassCalls extends Calls {
  make(wallet: WalletSetting, card: PassCard): Uint8Array
}

/** Makes wallet passes on a thread of their own, which begins with the first: signing takes a while, and no phone waits for another's. */
export function passMaker() {
  let thread: CalledThread<PassCalls> | null = null
  return {
    make(wallet: WalletSetting, card: PassCard): Promise<Uint8Array> {
      thread ??= callThread<PassCalls>('pass-thread', import.meta.url)
      return thread.call('make', wallet, card)
    },
    async close(): Promise<void> {
      await thread?.close()
    },
  }
}
export type PassMaker = ReturnType<typeof passMaker>
