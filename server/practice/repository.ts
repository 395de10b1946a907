import type { Knex } from 'knex'
import { MOST_RESULTS, type Result } from '#core/practice/result'

/** Of one person, oldest first. */
export async function resultsOf(db: Knex, who: string | null): Promise<unknown[]> {
  const { rows } = await db.raw<{ rows: { result: unknown }[] }>('select result from practice_results where who = ? order by at desc limit ?', [who ?? '', MOST_RESULTS])
  return rows.map(r => r.result).reverse()
}

/** Sent again it is there once, as it was last sent: the best play may come after the end. What is older than the last so many goes. */
export async function keepResult(db: Knex, who: string | null, result: Result): Promise<void> {
  const key = [who ?? '', result.code, result.at]
  await db.raw('insert into practice_results (who, code, at, result) values (?, ?, ?, ?::jsonb) on conflict (who, code, at) do update set result = excluded.result', [...key, JSON.stringify(result)])
  await db.raw('delete from practice_results where who = ? and at < (select min(at) from (select at from practice_results where who = ? order by at desc limit ?) kept)', [who ?? '', who ?? '', MOST_RESULTS])
}
