import type { Endpoint } from '../api/index.ts'
import { campaignsApi } from '../campaigns/index.ts'
import { checksApi } from '../checks/index.ts'
import { codesApi } from '../codes/index.ts'
import { domainsApi } from '../domains/index.ts'
import { filesApi } from '../files/index.ts'
import { goalsApi } from '../goals/index.ts'
import { houseStylesApi } from '../houseStyles/index.ts'
import { jobsApi } from '../jobs/index.ts'
import { leadsApi } from '../leads/index.ts'
import { mailApi } from '../mail/index.ts'
import { pageResultsApi, pagesApi, pageStylesApi, teamApi, walletApi } from '../pages/index.ts'
import { phoneApi } from '../phone/index.ts'
import { planApi } from '../plan/index.ts'
import { printApi } from '../print/index.ts'
import { reportsApi } from '../reports/index.ts'
import { resultsApi } from '../results/index.ts'
import { laneSetsApi, routesApi } from '../routing/index.ts'
import { scansApi } from '../scans/index.ts'
import { staticCodesApi } from '../staticCodes/index.ts'
import { taggingApi } from '../tagging/index.ts'
import { unusualApi } from '../unusual/index.ts'
import { visitTagsApi } from '../visitTags/index.ts'
import { watchesApi } from '../watches/index.ts'
import { findApi, workspaceApi } from '../workspace/index.ts'

const ROOMS: readonly Readonly<Record<string, Endpoint>>[] = [
  workspaceApi,
  { find: findApi },
  campaignsApi,
  routesApi,
  laneSetsApi,
  pagesApi,
  pageStylesApi,
  pageResultsApi,
  teamApi,
  walletApi,
  codesApi,
  scansApi,
  resultsApi,
  reportsApi,
  goalsApi,
  unusualApi,
  taggingApi,
  domainsApi,
  jobsApi,
  filesApi,
  leadsApi,
  mailApi,
  houseStylesApi,
  printApi,
  staticCodesApi,
  planApi,
  checksApi,
  visitTagsApi,
  watchesApi,
  phoneApi,
]

/** Every operation of the office's API. */
export const everyEndpoint: readonly Endpoint[] = ROOMS.flatMap((room) => Object.values(room))

/** The operation at a path as its contract writes it, such as `/codes/:id`. */
export function endpointOf(method: string, path: string): Endpoint | undefined {
  return everyEndpoint.find((each) => each.method === method && each.path === path)
}
