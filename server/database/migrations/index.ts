import { CompactScans1765200000000 } from './compactScans.ts'
import { Doors1764500000000 } from './doors.ts'
import { Folds1765300000000 } from './folds.ts'
import { First1764000000000 } from './first.ts'
import { Goals1765900000000 } from './goals.ts'
import { Jobs1764600000000 } from './jobs.ts'
import { Leads1765600000000 } from './leads.ts'
import { Mails1765700000000 } from './mails.ts'
import { PageEvents1765500000000 } from './pageEvents.ts'
import { PageParts1765400000000 } from './pageParts.ts'
import { Pages1764400000000 } from './pages.ts'
import { Print1764700000000 } from './print.ts'
import { StaticCodes1764900000000 } from './staticCodes.ts'
import { StaticReleases1765100000000 } from './staticReleases.ts'
import { Releases1764800000000 } from './releases.ts'
import { Placements1765000000000 } from './placements.ts'
import { Plan1764100000000 } from './plan.ts'
import { Reports1766100000000 } from './reports.ts'
import { Results1765800000000 } from './results.ts'
import { Routes1764200000000 } from './routes.ts'
import { Unusual1766000000000 } from './unusual.ts'
import { VisitTags1764300000000 } from './visitTags.ts'

/** In the order in which they are run; a new one goes last. */
export const MIGRATIONS = [
  First1764000000000,
  Plan1764100000000,
  Routes1764200000000,
  VisitTags1764300000000,
  Pages1764400000000,
  Doors1764500000000,
  Jobs1764600000000,
  Print1764700000000,
  Releases1764800000000,
  StaticCodes1764900000000,
  Placements1765000000000,
  StaticReleases1765100000000,
  CompactScans1765200000000,
  Folds1765300000000,
  PageParts1765400000000,
  PageEvents1765500000000,
  Leads1765600000000,
  Mails1765700000000,
  Results1765800000000,
  Goals1765900000000,
  Unusual1766000000000,
  Reports1766100000000,
]
