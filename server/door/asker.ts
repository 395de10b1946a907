import type { TLSSocket } from 'node:tls'
import { getHeader, type H3Event } from 'h3'
import type { Knex } from 'knex'
import type { Device } from '#core/door/door'
import { DOOR_WORDS, type DoorRefusal } from '#core/door/refusals'
import { isOwnName } from '../http/guard'
import type { Problem } from '../http/problem'
import { isHelper } from '../helper/helper'
import { keyIn } from './keys'
import { deviceOfKey } from './repository'
import type { Needs } from './rules'

/** Whoever asks: somebody at the machine that serves, of whom nothing is asked, or a device on the network with what it was let in by. */
export type Asker = { is: 'here' } | { is: 'away', device: Device | null }

/** The device of a request that the helper does, as the process before it has found it. */
export const DEVICE_HEADER = 'x-plain-match-device'

/**
 * Whether a request was made at this machine: it came in on the loopback side, which is plain, under this machine's own name. Behind a balancer nobody is
 * here: whoever it hands on comes in on that same side.
 */
export function isHere(event: H3Event): boolean {
  if (process.env.PLAIN_MATCH_BALANCER === '1') return false
  if ((event.node.req.socket as Partial<TLSSocket>).encrypted === true) return false
  return isOwnName(getHeader(event, 'host'))
}

/** Who asks, looked up once a request. @throws where the database is away: nobody is let in unseen, and nobody told that it was not */
export async function findAsker(event: H3Event, database: () => Promise<Knex>): Promise<Asker> {
  const context = event.context as { asker?: Asker }
  if (context.asker) return context.asker
  if (isHere(event)) return context.asker = { is: 'here' }
  const key = keyIn(getHeader(event, 'cookie'))
  return context.asker = { is: 'away', device: key === null ? null : await deviceOfKey(await database(), key) }
}

/** What an asker may not have; null where it may. Pure. */
export function doorRefusal(needs: Needs, asker: Asker): Problem | null {
  if (needs === 'nothing' || asker.is === 'here') return null
  const { device } = asker
  if (device === null) return refusal(401, 'not-let-in')
  if (device.takenBackAt !== null) return refusal(401, 'taken-back')
  return needs === 'may let in' && !device.mayLetIn ? refusal(403, 'not-yours') : null
}
const refusal = (status: number, code: DoorRefusal): Problem => ({ status, code, message: DOOR_WORDS[code] })

/** The device that asks; null at the machine itself. What it does bears its id. */
export function deviceIdOf(event: H3Event): string | null {
  if (isHelper) return getHeader(event, DEVICE_HEADER) || null
  const { asker } = event.context as { asker?: Asker }
  return asker?.is === 'away' ? asker.device?.id ?? null : null
}
