import type { Knex } from 'knex'
import type { HerePlace, Other } from '#core/door/here'
import { CHANGES_CHANNEL } from '../database/channel'

/** Who has a job open just now, and where in it. Of no worth a minute later: what the database loses of it in a crash is written anew by the next beat. */
const STALE_S = 45

interface Row { by: string, who: string | null, station: string, output_id: string | null, node_id: string | null }

/** Notes where this window is (null: it leaves) and tells who else is there. Others hear of it when something of it is new. */
export function beat(db: Knex, jobId: string, by: string, who: string | null, place: HerePlace | null): Promise<Other[]> {
  return db.transaction(async (trx) => {
    const { rowCount: gone } = await trx.raw<{ rowCount: number }>(
      `delete from presences where job_id = ? and (seen_at < now() - ? * interval '1 second' or (by = ? and ?))`, [jobId, STALE_S, by, place === null])
    let isNew = gone > 0
    if (place !== null) {
      const { rows } = await trx.raw<{ rows: unknown[] }>(`
        with before as (select who, station, output_id, node_id from presences where job_id = :jobId and by = :by),
        written as (
          insert into presences (job_id, by, who, station, output_id, node_id, seen_at) values (:jobId, :by, :who, :station, :outputId, :nodeId, now())
          on conflict (job_id, by) do update set who = excluded.who, station = excluded.station, output_id = excluded.output_id, node_id = excluded.node_id, seen_at = now()
          returning who, station, output_id, node_id)
        select * from written except select * from before`, { jobId, by, who, ...place })
      isNew ||= rows.length > 0
    }
    const { rows } = await trx.raw<{ rows: Row[] }>('select by, who, station, output_id, node_id from presences where job_id = ? and by <> ? order by who, by', [jobId, by])
    if (isNew) await trx.raw('select pg_notify(?, ?)', [CHANGES_CHANNEL, JSON.stringify({ here: jobId })])
    return rows.map(row => ({ by: row.by, who: row.who, station: row.station, outputId: row.output_id, nodeId: row.node_id }))
  })
}
