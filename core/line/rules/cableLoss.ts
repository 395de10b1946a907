import { LOSS_LIMIT_DB, LOSS_STOP_DB } from '#core/schools/lossLimits'
import { branchesOf } from '#core/job/tree'
import { found, type Rule } from './rule'

/** What the cable takes off the level at the worst placed speaker. Where lengths are missing it is that much at the least, and never all right. */
export const cableLoss: Rule = (line) => {
  const { stated, missing } = line.cable
  const unsized = branchesOf(line.output.wiring).flatMap(({ lead }) => lead && lead.cable === null ? [lead.lengthM] : [])
  // A line with no cable at all is a plan on paper: one word for it.
  if (stated === 0) {
    const lengthM = unsized.reduce((sum, m) => sum + m, 0)
    return missing > 0 ? [found(line, { code: 'cable-not-stated', grade: 'unknown', facts: { count: line.speakers.length, lengthM } })] : []
  }
  const lossDb = line.farthest?.lossDb ?? 0
  const partly = missing > 0 ? [found(line, { code: 'cable-partly-stated', grade: 'unknown', facts: { missing, sizeless: unsized.length, of: stated + missing, lossDb } })] : []
  const limitDb = LOSS_LIMIT_DB[line.kind]
  if (!line.farthest || -lossDb <= limitDb) return partly
  const { label, nodeId, volts, powerW } = line.farthest.drop
  const grade = -lossDb > LOSS_STOP_DB ? 'stop' : 'tight'
  return [...partly, found(line, { code: 'far-end-loss', grade, facts: { label, lossDb, limitDb, volts, powerW, missing } }, nodeId)]
}
