import { branchesOf } from '#core/job/tree'
import { LOSS_LIMIT_DB, LOSS_STOP_DB } from '#core/practice/limits'
import { found, type Rule } from './rule'

/** What the cable takes off the level at the worst placed speaker. */
export const cableLoss: Rule = (line) => {
  const branches = branchesOf(line.output.wiring)
  // A line with no cable at all is a plan on paper: one word for it. Members that stand together need none.
  const notStated = branches.length > 0 && branches.every(b => b.lead === null)
    ? [found(line, { code: 'cable-not-stated', grade: 'unknown', facts: { count: line.speakers.length } })]
    : []
  if (!line.farthest) return notStated
  const { drop, lossDb } = line.farthest
  const limitDb = LOSS_LIMIT_DB[line.kind]
  if (-lossDb <= limitDb) return notStated
  const grade = -lossDb > LOSS_STOP_DB ? 'stop' : 'tight'
  return [...notStated, found(line, { code: 'far-end-loss', grade, facts: { label: drop.label, lossDb, limitDb, volts: drop.volts, powerW: drop.powerW } }, drop.nodeId)]
}
