import { randomBytes } from 'node:crypto'
import type { Knex } from 'knex'
import { MOST_METERS, type Meter, type NewMeter } from '#core/meter/meters'
import { problem } from '../http/problem'

interface Row { id: string, name: string, host: string, port: number, four_wire: boolean }

/** The simulated meter, as the starter has set it up; null where it did not. */
export function standIn(): Meter | null {
  const port = Number(process.env.PLAIN_MATCH_STAND_IN_METER)
  return port > 0 ? { id: 'stand-in', name: 'Simulated bench meter', host: '127.0.0.1', port, fourWire: false, isStandIn: true } : null
}

export async function meters(db: Knex): Promise<Meter[]> {
  const { rows } = await db.raw<{ rows: Row[] }>('select id, name, host, port, four_wire from meters order by made_at, id')
  const own = rows.map(({ four_wire: fourWire, ...row }): Meter => ({ ...row, fourWire, isStandIn: false }))
  const simulated = standIn()
  return simulated ? [...own, simulated] : own
}

export async function addMeter(db: Knex, { name, host, port, fourWire }: NewMeter): Promise<string> {
  const id = randomBytes(8).toString('hex')
  const { rowCount } = await db.raw<{ rowCount: number }>(`insert into meters (id, name, host, port, four_wire) select ?, ?, ?, ?, ? where (select count(*) from meters) < ?`, [id, name, host, port, fourWire, MOST_METERS])
  if (rowCount === 0) throw problem(409, 'too-many', `${MOST_METERS} meters are the most.`)
  return id
}

export async function removeMeter(db: Knex, id: string): Promise<boolean> {
  const { rowCount } = await db.raw<{ rowCount: number }>('delete from meters where id = ?', [id])
  return rowCount > 0
}
