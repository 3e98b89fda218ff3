import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto'

/** Cost of scrypt (RFC 7914): 64 MiB and some 100 ms a guess. */
const COST = { N: 65_536, r: 8, p: 1, maxmem: 128 * 1024 * 1024 } satisfies ScryptOptions

function derive(password: string, salt: Buffer): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    scrypt(password.normalize('NFKC'), salt, 32, COST, (error, key) => {
      if (error) reject(error)
      else resolve(key)
    })
  })
}

/** A password as it is stored: scheme, salt and derived key. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16)
  return `scrypt$${salt.toString('base64')}$${(await derive(password, salt)).toString('base64')}`
}

/** Whether a password is the one whose hash is stored; takes as long either way. */
export async function isPassword(password: string, stored: string): Promise<boolean> {
  const [, salt = '', key = ''] = stored.split('$')
  const expected = Buffer.from(key, 'base64')
  const given = await derive(password, Buffer.from(salt, 'base64'))
  return expected.length === given.length && timingSafeEqual(expected, given)
}

/** Takes as long as a real check, so that an unknown address cannot be told from a wrong password. */
export async function pretendToCheck(password: string): Promise<false> {
  await derive(password, randomBytes(16))
  return false
}
