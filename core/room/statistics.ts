import { deviation, mean, quantileSorted } from 'd3-array'

/** What a level is over a floor, dB. */
export interface LevelStatistics {
  /** Mean of the levels in dB of equal pieces of floor. */
  meanDb: number
  /** Standard deviation about it. */
  spreadDb: number
  /** A tenth of the floor is quieter than this. */
  p10Db: number
  /** A tenth is louder. */
  p90Db: number
  /** Part of the floor within 3 dB of the mean, 0 to 1. */
  within3Db: number
}

/** Null with no level. */
export function statisticsOf(levelsDb: Float64Array): LevelStatistics | null {
  const meanDb = mean(levelsDb)
  if (meanDb === undefined) return null
  const sorted = levelsDb.toSorted()
  let within = 0
  for (const db of levelsDb) if (Math.abs(db - meanDb) <= 3) within++
  const quantile = (part: number) => quantileSorted(sorted as unknown as ArrayLike<number> & number[], part)!
  return { meanDb, spreadDb: deviation(levelsDb) ?? 0, p10Db: quantile(0.1), p90Db: quantile(0.9), within3Db: within / levelsDb.length }
}
