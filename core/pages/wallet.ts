import { z } from 'zod'
import { endpoint, line, requiredLine } from '../api/index.ts'

const PEM_MAX = 20_000
const pem = (what: string, kind: RegExp) =>
  z
    .string()
    .trim()
    .max(PEM_MAX, `Give ${what} alone.`)
    .regex(kind, `Paste ${what} as PEM text: it begins with -----BEGIN and ends with -----END.`)
const CERTIFICATE = /^-----BEGIN CERTIFICATE-----[\s\S]+-----END CERTIFICATE-----$/
const KEY =
  /-----BEGIN (?:RSA |ENCRYPTED )?PRIVATE KEY-----[\s\S]+-----END (?:RSA |ENCRYPTED )?PRIVATE KEY-----$/

/** What a workspace signs wallet passes with: who it is to those who read them, its certificate and key, and who vouches for it. */
export const walletSetting = z.strictObject({
  passType: z
    .string()
    .trim()
    .regex(
      /^pass(\.[A-Za-z0-9-]+)+$/,
      'Write the identifier of the pass type as the certificate has it: pass.example.crew.',
    ),
  teamId: z
    .string()
    .trim()
    .regex(/^[A-Z0-9]{10}$/, 'Write the ten signs of the team’s identifier.'),
  organisation: requiredLine('the organisation’s name', 100),
  certificate: pem('the certificate', CERTIFICATE),
  key: pem('its private key', KEY),
  /** Empty where the key is not locked. */
  keyPassword: line('the password of the key', 200),
  authority: pem('the certificate of the authority that issued it', CERTIFICATE),
})
export type WalletSetting = z.infer<typeof walletSetting>

/** What is told of it: the key never is. */
export const walletState = z.object({
  version: z.int(),
  stored: z
    .object({
      passType: z.string(),
      teamId: z.string(),
      organisation: z.string(),
      /** UTC milliseconds; passes that were signed before stay good. */
      expiresAt: z.int(),
    })
    .nullable(),
})
export type WalletState = z.infer<typeof walletState>

export const walletApi = {
  get: endpoint({
    method: 'GET',
    path: '/settings/wallet',
    room: 'pages',
    access: { right: 'view' },
    summary: 'With which certificate wallet passes are signed; its key is never told',
    answer: walletState,
  }),
  change: endpoint({
    method: 'PATCH',
    path: '/settings/wallet',
    room: 'pages',
    access: { right: 'administer' },
    summary: 'Store the certificate that wallet passes are signed with, or remove it',
    body: z.strictObject({ version: z.int(), value: walletSetting.nullable() }),
    answer: walletState,
  }),
}
