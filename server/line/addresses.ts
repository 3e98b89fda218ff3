import type { Config } from '../config/index.ts'
import type { Ports } from './orders.ts'

/** Where the office and the front door are found from outside, as origins. */
export interface Addresses {
  readonly office: string
  readonly door: string
}

const local = (port: number) => `http://localhost:${String(port)}`

/** The addresses that are configured; where the system chooses the ports, those that it chose, once they are open. */
export function addressesOf(
  { officeUrl, doorUrl }: Pick<Config, 'officeUrl' | 'doorUrl'>,
  ports: () => Pick<Ports, 'office' | 'door'>,
): Addresses {
  return {
    get office() {
      return officeUrl ?? local(ports().office)
    },
    get door() {
      return doorUrl ?? local(ports().door)
    },
  }
}
