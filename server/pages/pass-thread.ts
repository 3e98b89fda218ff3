import { PKPass } from 'passkit-generator'
import sharp from 'sharp'
import { serveCalls } from '../threads/index.ts'
import type { PassCalls } from './passes.ts'

/** The picture that readers show beside a pass, in the pixels that the format asks for. */
const ICON = `<svg xmlns="http://www.w3.org/2000/svg" width="58" height="58"><rect width="58" height="58" rx="12" fill="#0c5a66"/><circle cx="29" cy="23" r="9" fill="#fff"/><path d="M11 48a18 15 0 0 1 36 0z" fill="#fff"/></svg>`
const SIDES = { 'icon.png': 29, 'icon@2x.png': 58 } as const
const icons: Record<string, Buffer> = Object.fromEntries(
  await Promise.all(
    Object.entries(SIDES).map(
      async ([name, side]) => [name, await sharp(Buffer.from(ICON)).resize(side).png().toBuffer()] as const,
    ),
  ),
)

const calls: PassCalls = {
  make(wallet, { name, role, organisation, phone, email, link, serial }) {
    const pass = new PKPass(
      icons,
      {
        wwdr: wallet.authority,
        signerCert: wallet.certificate,
        signerKey: wallet.key,
        ...(wallet.keyPassword === '' ? {} : { signerKeyPassphrase: wallet.keyPassword }),
      },
      {
        passTypeIdentifier: wallet.passType,
        teamIdentifier: wallet.teamId,
        organizationName: wallet.organisation,
        serialNumber: serial,
        description: name,
        backgroundColor: 'rgb(12, 90, 102)',
        foregroundColor: 'rgb(255, 255, 255)',
        labelColor: 'rgb(255, 255, 255)',
      },
    )
    pass.type = 'generic'
    pass.primaryFields.push({ key: 'name', value: name })
    if (role !== '') pass.secondaryFields.push({ key: 'role', value: role })
    if (organisation !== '') pass.secondaryFields.push({ key: 'organisation', value: organisation })
    if (phone !== '') pass.auxiliaryFields.push({ key: 'phone', value: phone })
    if (email !== '') pass.auxiliaryFields.push({ key: 'email', value: email })
    pass.setBarcodes({ format: 'PKBarcodeFormatQR', message: link, messageEncoding: 'utf-8' })
    return pass.getAsBuffer()
  },
}
serveCalls(calls)
