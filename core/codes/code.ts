import { z } from 'zod'
import { check } from '../checks/index.ts'
import { state } from '../routing/index.ts'
import { tally } from '../scans/index.ts'
import { LEVELS, placement, printState } from '../symbol/index.ts'
import { finding } from '../tagging/index.ts'

export const level = z.enum(LEVELS, { error: 'Choose one of the levels L, M, Q and H.' })

const clash = z.object({ name: z.string(), replaced: z.string(), by: z.string() })

/** The newest check that says something of a piece's destination. */
const checked = check.pick({ verdict: true, at: true, sentence: true, failingSince: true })

export const code = z.object({
  id: z.int(),
  campaignId: z.int(),
  routeId: z.int(),
  routeName: z.string(),
  routeVersion: z.int(),
  routeState: state,
  /** How many codes share the route, this one among them. */
  routeCodes: z.int(),
  name: z.string(),
  domainId: z.int(),
  /** Origin its short link begins with. */
  origin: z.string(),
  slug: z.string(),
  shortLink: z.string(),
  /** Short links it had before it was renamed; they go on working. */
  oldLinks: z.array(z.string()),
  destination: z.string(),
  /** Where a scan without a query of its own goes, UTM values and all. */
  finalAddress: z.string(),
  /** Where this one item leads where no lane takes it; empty for its route's destination. */
  otherwise: z.string(),
  /** Values the destination had itself and the code's took the place of. */
  clashes: z.array(clash),
  medium: z.string(),
  source: z.string(),
  campaign: z.string(),
  term: z.string(),
  content: z.string(),
  /** Values of the workspace's own parameters. */
  extra: z.record(z.string(), z.string()),
  level,
  /** Side of the symbol as printed, quiet zone included, in millimetres. */
  sizeMm: z.number(),
  /** From how far away it is scanned, in metres. */
  viewingM: z.number().nullable(),
  place: z.string(),
  latitude: z.number().nullable(),
  longitude: z.number().nullable(),
  /** Copies printed. */
  printRun: z.int().nullable(),
  /** In the workspace's currency. */
  cost: z.number().nullable(),
  liveOn: z.string().nullable(),
  downOn: z.string().nullable(),
  reference: z.string(),
  /** What an import knows the piece by. */
  key: z.string(),
  note: z.string(),
  /** The house style it is printed in; null, with no name, for the plain one. */
  styleId: z.int().nullable(),
  styleName: z.string(),
  /** Where it lies on a picture; null where it stands alone. */
  placement: placement.nullable(),
  /** Whether it will read once it is printed, as far as that was measured. */
  print: printState,
  state,
  archivedAt: z.int().nullable(),
  version: z.int(),
  createdAt: z.int(),
  scans: tally,
  /** What the linter says of its tags. */
  findings: z.array(finding),
  /** The channel its visits fall in; empty where no line of the table takes them. */
  channel: z.string(),
  check: checked.nullable(),
})
export type Code = z.infer<typeof code>
