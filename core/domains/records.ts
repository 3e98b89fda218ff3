/** The two records that make a domain a front door: one leads phones here, one shows that it is yours. */
export interface WantedRecords {
  readonly cname: { readonly name: string; readonly value: string }
  readonly txt: { readonly name: string; readonly value: string }
}

/** What the DNS answered; null where a look-up failed for want of a server, not of a record. */
export interface FoundRecords {
  readonly cname: readonly string[] | null
  readonly txt: readonly string[] | null
}

/** The label under which a domain's proof stands. */
const PROOF_LABEL = '_flimbo'

/** What to set in the DNS of a domain so that its short links reach the front door at `target` (RFC 1034, section 3.6). */
export function wantedRecords(host: string, target: string, token: string): WantedRecords {
  return {
    cname: { name: host, value: target },
    txt: { name: `${PROOF_LABEL}.${host}`, value: `flimbo=${token}` },
  }
}

const same = (a: string, b: string) =>
  a.toLowerCase().replace(/\.$/, '') === b.toLowerCase().replace(/\.$/, '')

type Record = WantedRecords['cname']

const cnameFault = ({ name, value }: Record, found: readonly string[]) =>
  found.length > 0
    ? `The CNAME record of ${name} leads to ${found.join(', ')} instead of ${value}.`
    : `There is no CNAME record of ${name} yet.`

const txtFault = ({ name, value }: Record, found: readonly string[]) =>
  found.length > 0
    ? `The TXT record of ${name} says something else than ${value}.`
    : `There is no TXT record of ${name} yet.`

/** Whether a domain may be used, and what is missing, in a sentence; names are compared without regard to case (RFC 1034, section 3.1). */
export function judgeRecords(
  wanted: WantedRecords,
  found: FoundRecords,
): { ready: boolean; sentence: string } {
  if (found.cname === null || found.txt === null) {
    return { ready: false, sentence: 'The name server did not answer. Try again in a few minutes.' }
  }
  const points = found.cname.some((value) => same(value, wanted.cname.value))
  const proves = found.txt.some((value) => value.trim() === wanted.txt.value)
  if (points && proves)
    return { ready: true, sentence: 'Both records are there: short links on this domain work.' }
  const missing = [
    ...(points ? [] : [cnameFault(wanted.cname, found.cname)]),
    ...(proves ? [] : [txtFault(wanted.txt, found.txt)]),
  ]
  return {
    ready: false,
    sentence: `${missing.join(' ')} New records may take an hour to be seen everywhere; then check again.`,
  }
}
