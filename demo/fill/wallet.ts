import { generateKeyPairSync } from 'node:crypto'
import forge from 'node-forge'
import { WALLET } from '@flimbo/server/pages'
import { tables, type Database } from '@flimbo/server/database'

const PASS_TYPE = 'pass.example.saltmarsh'
const ORGANISATION = 'Saltmarsh Line'
const YEARS = 2

interface Pair {
  readonly certificate: forge.pki.Certificate
  readonly key: forge.pki.rsa.PrivateKey
  /** PEM (RFC 7468). */
  readonly keyText: string
}

/** A certificate (RFC 5280) for a name, signed by an issuer; by itself where there is none. */
function issue(name: string, now: Date, issuer: Pair | null): Pair {
  const keys = generateKeyPairSync('rsa', {
    modulusLength: 2048,
    publicKeyEncoding: { type: 'spki', format: 'pem' },
    privateKeyEncoding: { type: 'pkcs8', format: 'pem' },
  })
  const key = forge.pki.privateKeyFromPem(keys.privateKey)
  const certificate = forge.pki.createCertificate()
  certificate.publicKey = forge.pki.publicKeyFromPem(keys.publicKey)
  certificate.serialNumber = issuer ? '02' : '01'
  certificate.validity.notBefore = now
  certificate.validity.notAfter = new Date(now)
  certificate.validity.notAfter.setFullYear(now.getFullYear() + YEARS)
  const subject = [
    { name: 'commonName', value: name },
    { name: 'organizationName', value: ORGANISATION },
  ]
  certificate.setSubject(subject)
  certificate.setIssuer(issuer ? issuer.certificate.subject.attributes : subject)
  certificate.setExtensions([{ name: 'basicConstraints', cA: issuer === null }])
  certificate.sign(issuer?.key ?? key, forge.md.sha256.create())
  return { certificate, key, keyText: keys.privateKey }
}

/** Stores a certificate of the sample's own, so that contacts on its pages are wallet passes too; no phone trusts it. */
export async function fillWallet(database: Database, personId: number, now: number): Promise<void> {
  const authority = issue('Saltmarsh sample authority', new Date(now), null)
  const own = issue(PASS_TYPE, new Date(now), authority)
  const pem = ({ certificate }: Pair) => forge.pki.certificateToPem(certificate).trim()
  await database.write(async (manager) => {
    const { workspaceId } = await manager.findOneByOrFail(tables.people, { id: personId })
    const wallet = WALLET.schema.parse({
      wallet: {
        passType: PASS_TYPE,
        teamId: 'SALTMARSH1',
        organisation: ORGANISATION,
        certificate: pem(own),
        key: own.keyText,
        keyPassword: '',
        authority: pem(authority),
      },
    })
    await manager.insert(tables.settings, { workspaceId, section: WALLET.name, value: wallet, version: 1 })
  })
}
