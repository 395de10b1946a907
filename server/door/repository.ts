import type { Knex } from 'knex'
import { CODE_MINUTES, CODE_TRIES, type Device } from '#core/door/door'
import { CHANGES_CHANNEL } from '../database/channel'
import { hashOf, newCode, newDeviceId, newKey } from './keys'

/** Devices and codes in the database. Every function is one statement, or one transaction: two servers stand on it. */

interface Row { id: string, name: string, may_let_in: boolean, let_in_at: Date, last_seen_at: Date, taken_back_at: Date | null }
const deviceOf = (row: Row): Device => ({
  id: row.id, name: row.name, mayLetIn: row.may_let_in,
  letInAt: row.let_in_at.toISOString(), lastSeenAt: row.last_seen_at.toISOString(), takenBackAt: row.taken_back_at?.toISOString() ?? null,
})
const COLUMNS = 'id, name, may_let_in, let_in_at, last_seen_at, taken_back_at'
/** Of those that were taken back so many are shown. */
const MOST_SHOWN = 500

export async function deviceOfKey(db: Knex, key: string): Promise<Device | null> {
  const { rows: [row] } = await db.raw<{ rows: Row[] }>(`select ${COLUMNS} from devices where key_hash = ?`, [hashOf(key)])
  return row ? deviceOf(row) : null
}

export async function devices(db: Knex): Promise<Device[]> {
  const { rows } = await db.raw<{ rows: Row[] }>(`select ${COLUMNS} from devices order by taken_back_at desc nulls first, last_seen_at desc limit ${MOST_SHOWN}`)
  return rows.map(deviceOf)
}

/** To the minute: a device that works asks many times a second. */
export async function noteSeen(db: Knex, id: string): Promise<void> {
  await db.raw(`update devices set last_seen_at = now() where id = ? and last_seen_at < now() - interval '1 minute'`, [id])
}

/** Makes a code; those before it are void. */
export async function makeCode(db: Knex, mayLetIn: boolean): Promise<{ code: string, expiresAt: string }> {
  const code = newCode()
  return db.transaction(async (trx) => {
    await voidCodes(trx)
    const { rows: [row] } = await trx.raw<{ rows: { expires_at: Date }[] }>(
      `insert into door_codes (code_hash, may_let_in, expires_at, tries_left) values (?, ?, now() + ? * interval '1 minute', ?) returning expires_at`,
      [hashOf(code), mayLetIn, CODE_MINUTES, CODE_TRIES])
    return { code, expiresAt: row!.expires_at.toISOString() }
  })
}

export async function voidCodes(db: Knex): Promise<void> {
  await db.raw('update door_codes set expires_at = now() where used_by is null and expires_at > now()')
}

export type LetIn = { is: 'in', device: Device, key: string } | { is: 'no-code' } | { is: 'wrong', triesLeft: number } | { is: 'name-taken' }

/** Takes a device in by its code. A wrong code costs a try, whoever makes it; a name that is taken costs none. */
export function letIn(db: Knex, code: string, name: string): Promise<LetIn> {
  return db.transaction(async (trx): Promise<LetIn> => {
    const { rows: [shown] } = await trx.raw<{ rows: { id: string, code_hash: Buffer, may_let_in: boolean, tries_left: number }[] }>(
      `select id, code_hash, may_let_in, tries_left from door_codes where used_by is null and expires_at > now() and tries_left > 0 order by id desc limit 1 for update`)
    if (!shown) return { is: 'no-code' }
    if (!shown.code_hash.equals(hashOf(code))) {
      await trx.raw('update door_codes set tries_left = tries_left - 1 where id = ?', [shown.id])
      return { is: 'wrong', triesLeft: shown.tries_left - 1 }
    }
    const { rows: taken } = await trx.raw<{ rows: unknown[] }>('select 1 from devices where lower(name) = lower(?) and taken_back_at is null', [name])
    if (taken.length > 0) return { is: 'name-taken' }
    const key = newKey()
    const { rows: [row] } = await trx.raw<{ rows: Row[] }>(
      `insert into devices (id, name, key_hash, may_let_in) values (?, ?, ?, ?) returning ${COLUMNS}`, [newDeviceId(), name, hashOf(key), shown.may_let_in])
    await trx.raw('update door_codes set used_by = ? where id = ?', [row!.id, shown.id])
    await tell(trx, { devices: true })
    return { is: 'in', device: deviceOf(row!), key }
  })
}

/** Takes a device back: from the next request on it is not let in, and its stream is closed. False: there is none, or it was taken back before. */
export async function takeBack(db: Knex, id: string): Promise<boolean> {
  return db.transaction(async (trx) => {
    const { rows } = await trx.raw<{ rows: unknown[] }>('update devices set taken_back_at = now() where id = ? and taken_back_at is null returning id', [id])
    if (rows.length > 0) await tell(trx, { takenBack: id })
    return rows.length > 0
  })
}

async function tell(trx: Knex.Transaction, what: { devices: true } | { takenBack: string }): Promise<void> {
  await trx.raw('select pg_notify(?, ?)', [CHANGES_CHANNEL, JSON.stringify(what)])
}
