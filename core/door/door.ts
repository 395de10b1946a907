import { z } from 'zod'

/** What is said at the door: who comes in from the network, and how. Shared by server and pages. */

/** For so long a code lets in, and so many wrong ones may be tried before it is void. */
export const CODE_MINUTES = 10
export const CODE_TRIES = 5
export const CODE_DIGITS = 6
/** Longer than a name is seen at a reading. */
export const MOST_NAME = 40

/** Control characters, and those that turn the direction of what follows. */
// eslint-disable-next-line no-control-regex
const NOT_PRINTED = /[\u0000-\u001f\u007f-\u009f\u200b-\u200f\u2028-\u202e\u2066-\u2069]/
export const deviceName = z.string().trim().min(1, 'must have a name, as “Anna’s phone”').max(MOST_NAME, `must be at most ${MOST_NAME} characters`)
  .refine(name => !NOT_PRINTED.test(name), 'must be characters that can be printed')
export const codeText = z.string().transform(text => text.replaceAll(/[\s-]/g, '')).pipe(z.string().regex(/^\d{6}$/, 'must be the six digits that the desk shows'))
export const letInSchema = z.strictObject({ code: codeText, name: deviceName })

/** Whether who comes in by it may let others in as well. */
export const wantedCodeSchema = z.strictObject({ mayLetIn: z.boolean().default(false) })

export interface Device {
  id: string
  name: string
  /** May show codes and take devices back, as the machine that serves may. */
  mayLetIn: boolean
  letInAt: string
  /** To the minute. */
  lastSeenAt: string
  takenBackAt: string | null
}

/** Who a page is to the server: at the machine itself nobody is asked, and there is no device. */
export interface Me {
  device: { id: string, name: string } | null
  mayLetIn: boolean
}

/** What a desk shows for another to come in by. */
export interface DoorCode {
  code: string
  expiresAt: string
  /** Where it is typed in; null where the server listens on this machine alone: then nobody can come in. */
  entrance: Entrance | null
}
export interface Entrance {
  /** The one lasting origin. */
  origin: string
  /** Where a phone takes the authority that vouches for it, and its fingerprint; null where the certificate was given from outside. */
  trust: { url: string, fingerprint: string } | null
}
