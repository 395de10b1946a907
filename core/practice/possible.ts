import { predictLine } from '#core/check/predict'
import { makeProver } from '#core/check/proveJob'
import { Records } from '#core/job/records'
import type { Reading } from '#core/job/schema'
import { drained } from '#core/quantity/steps'
import { givenBy } from '#core/trace/given'
import { nextTests, type NextTests } from '#core/trace/next/best'
import { mendKey, type Standing } from '#core/trace/next/minutes'
import { WALK_KINDS, type TestAt, type TestKind } from '#core/trace/next/test'
import { rankPairs } from '#core/trace/pairs'
import { isSomethingElse, rankOfSingles, trySingles, type Suspect } from '#core/trace/rank'
import { riskOf } from '#core/trace/switchOn'
import { testsAt } from './places'
import type { Rig } from './rig'

/** What may be hidden in a rig by what was read and opened, as the tracer ranks it, and what it would read next. */

export interface Ranked {
  suspects: readonly Suspect[]
  ask: (standing: Standing, besides?: TestAt, mayBeOn?: boolean) => NextTests
  /** The same readings, with what was opened and is right by now: `mendKey`. */
  without: (opened: ReadonlySet<string>) => Ranked
}

/** @param opened what was opened and is right by now: `mendKey` */
export function ranked(rig: Rig, readings: readonly Reading[], opened: ReadonlySet<string> = new Set()): Ranked {
  const { output } = rig
  const proof = makeProver()({ readings: Records.of(readings), repairs: Records.of() }, [{ output, predicted: predictLine(output) }]).get(output.id)!
  const given = givenBy(output, proof)
  const tried = drained(trySingles(given))
  const all = rig.faults.length > 1 ? drained(rankPairs(tried)).suspects : rankOfSingles(tried).suspects
  const atTheRack = new Set<TestKind>(testsAt(output, null).map(t => t.kind))
  const cannot = new Set<string>(WALK_KINDS.filter(kind => !atTheRack.has(kind)))
  const without = (right: ReadonlySet<string>): Ranked => {
    const suspects = asTold(rig, right, all)
    const isSafe = riskOf(output, proof, suspects) === null
    return {
      suspects, without,
      ask: (standing, besides, mayBeOn = true) =>
        nextTests(tried, { suspects }, { standing, mayBeOn: mayBeOn && isSafe, cannot, ...besides ? { besides } : {} }, given.readings),
    }
  }
  return without(opened)
}

/** What whoever plays is told: how many are hidden, and of which kinds. So much the tracer may know, too. */
function asTold({ exercise: { kinds } }: Rig, opened: ReadonlySet<string>, suspects: readonly Suspect[]): Suspect[] {
  const closed = suspects.filter(s => !s.faults.some(f => opened.has(mendKey([f]))))
  const may = closed.filter(s => s.faults.length > 0 && !isSomethingElse(s.faults) && (kinds === null || s.faults.every(f => kinds.includes(f.kind))))
  const total = may.reduce((sum, s) => sum + s.probability, 0)
  return total > 0 ? may.map(s => ({ ...s, probability: s.probability / total })) : closed
}
