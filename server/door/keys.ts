import { createHash, randomBytes, randomInt } from 'node:crypto'
import { CODE_DIGITS } from '#core/door/door'

/** Keys and codes: made by chance, kept as hashes. A key is 32 bytes: its hash needs no salt. A code lives ten minutes and five tries. */
export const hashOf = (secret: string) => createHash('sha256').update(secret).digest()
export const newKey = () => randomBytes(32).toString('base64url')
export const newDeviceId = () => randomBytes(8).toString('hex')
export const newCode = () => String(randomInt(10 ** CODE_DIGITS)).padStart(CODE_DIGITS, '0')

/** The browser takes it over HTTPS for this very name only, shows it to no script, and sends it with nothing that another site asks. */
export const COOKIE = '__Host-plain-match'
/** The longest that browsers keep one; it is given anew while the device is in use. */
const COOKIE_DAYS = 400
export const cookieOf = (key: string) => `${COOKIE}=${key}; Path=/; Max-Age=${COOKIE_DAYS * 86_400}; HttpOnly; Secure; SameSite=Strict`

/** The key among the cookies of a request; null where there is none. */
export function keyIn(cookies: string | undefined): string | null {
  for (const part of (cookies ?? '').split(';')) {
    const [name, value] = part.trim().split('=')
    if (name === COOKIE && value && /^[\w-]{43}$/.test(value)) return value
  }
  return null
}
