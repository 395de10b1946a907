import { expect, test } from '@jest/globals'
import { remediesFor, type OfferedRemedy } from '#core/advice/remedies/index'
import { applyEdit } from '#core/job/apply'
import type { Job } from '#core/job/schema'
import { outputsOf, speakersOf, withBranch } from '#core/job/tree'
import { evaluateJob, type LineEvaluation } from '#core/line/evaluate'
import type { Finding } from '#core/line/finding'
import { counter, jobOf } from '#core/testing/jobs'
import { runs } from '#core/testing/runs'
import { randomCurve, seeded, type Chance } from '#core/testing/trees'

/**
 * Whatever a remedy offers, put in by its press, evaluates to what it promised, and brings no finding that was not there: over random jobs with controls,
 * transformers, cable, curves, bridged pairs, series and valve outputs.
 */

const pick = <T>(chance: Chance, list: readonly T[]): T => list[Math.floor(chance() * list.length)]!
const maybe = (chance: Chance, share: number, text: string) => chance() < share ? text : ''

function lineOfTaps(chance: Chance): string {
  const stretch = () => {
    const text = `${1 + Math.floor(chance() * 9)} x ${pick(chance, [2.5, 5, 10, 20, 30])} W`
    return chance() < 0.3 ? `(${text} behind control ${pick(chance, [10, 25, 50, 100])} W${maybe(chance, 0.3, ' down 6 dB')})` : text
  }
  const load = Array.from({ length: 1 + Math.floor(chance() * 3) }, stretch).join(' + ')
  const cable = maybe(chance, 0.6, ` over ${pick(chance, [5, 12, 30])} m of ${pick(chance, ['12 awg', '16 awg', '20 awg', '1.5 mm²'])} each`)
  return `${load}${cable} on ${pick(chance, [70, 100])} V ${pick(chance, [30, 60, 120, 240])} W`
}

function lineOfOhms(chance: Chance): string {
  const unit = () => `${pick(chance, [4, 8, 16])} ohm${maybe(chance, 0.7, ` ${pick(chance, [30, 80, 200])} W`)}`
  const string = () => chance() < 0.4 ? `(${unit()} + ${unit()})` : chance() < 0.2 ? `(${unit()} cap 100 uF)` : unit()
  const load = Array.from({ length: 1 + Math.floor(chance() * 4) }, string).join(' || ')
  const cable = maybe(chance, 0.5, ` over ${pick(chance, [3, 10, 25])} m of ${pick(chance, ['12 awg', '18 awg'])} each`)
  const control = maybe(chance, 0.15, ' behind control 100 W')
  const output = pick(chance, ['100 W at 8', '300 W at 4, 180 W at 8, from 2', '2 x 200 W at 4 bridged', 'valve 50 W at 4/8/16', 'valve 100 W at 8/16, tap 8', '500 W at 8, from 4'])
  return `${load}${control}${cable} on ${output}`
}

function randomJob(chance: Chance): Job {
  const lines = Array.from({ length: 1 + Math.floor(chance() * 3) }, () => chance() < 0.6 ? lineOfTaps(chance) : lineOfOhms(chance))
  let job = jobOf(...lines)
  for (const { id, load } of outputsOf(job).flatMap(o => speakersOf(o.wiring))) {
    if (load.kind !== 'nominal' || chance() > 0.25) continue
    const curve = randomCurve(chance)
    job = withBranch(job, id, b => b.node.kind === 'speaker' ? { ...b, node: { ...b.node, load: { ...curve, nominalOhm: load.nominalOhm } } } : b)
  }
  return job
}

const isBad = ({ grade }: Finding) => grade === 'stop' || grade === 'tight'
const nameOf = (line: LineEvaluation, { code, nodeId }: Finding) => `${line.output.label} ${code} ${nodeId ?? ''}`
const badOf = (lines: readonly LineEvaluation[]) => new Map(lines.flatMap(line => line.findings.filter(isBad).map(f => [nameOf(line, f), f] as const)))

/** What a remedy says of the lines after it, beside what they come to. */
function promised({ facts }: OfferedRemedy, line: LineEvaluation, finding: Finding): [said: number, is: number | null][] {
  switch (facts.code) {
    case 'tap-down': case 'onto-tap': case 'across-the-line': return [[facts.drawW, line.drawW]]
    case 'thicker-cable': case 'thick-first': return [[facts.lossDb, line.farthest?.lossDb ?? 0]]
    case 'pair-in-series': case 'valve-tap': return [[facts.loadOhm, line.upOhm]]
    case 'behind-down': return [[facts.behindW, line.throughs.find(t => t.nodeId === finding.nodeId)?.behindW ?? null]]
    case 'split-here': return facts.hereOhm === null ? [[facts.hereW!, line.drawW]] : [[facts.hereOhm, line.loadOhm]]
    case 'move-away': return [[facts.hereW, line.drawW]]
    default: return []
  }
}

const JOBS = runs(400)
test(`${JOBS} random jobs: every remedy cures what it is offered for, gives the figures that it says, and brings nothing that is not said; never a stop`, () => {
  const offered: Record<string, number> = {}
  let said = 0
  for (let seed = 1; seed <= JOBS; seed++) {
    const job = randomJob(seeded(seed))
    const before = evaluateJob(job)
    const was = badOf(before)
    for (const line of before) {
      for (const finding of line.findings.filter(isBad)) {
        for (const remedy of remediesFor({ job, line, finding, newId: counter(`n${seed}-`) })) {
          offered[remedy.facts.code] = (offered[remedy.facts.code] ?? 0) + 1
          const lines = evaluateJob(applyEdit(job, remedy.edit).job)
          const now = badOf(lines)
          const fresh = [...now].filter(([name]) => !was.has(name)).map(([name, { grade }]) => `${name} ${grade}`)
          const told = remedy.brings.map(({ label, finding: f }) => `${label} ${f.code} ${f.nodeId ?? ''} ${f.grade}`)
          said += told.length
          const where = `seed ${seed}, ${finding.code}, ${remedy.facts.code}`
          expect([where, now.has(nameOf(line, finding)), fresh.sort()]).toEqual([where, false, told.sort()])
          expect([where, told.filter(t => t.endsWith('stop'))]).toEqual([where, []])
          const after = lines.find(l => l.outputId === line.outputId)!
          for (const [promise, is] of promised(remedy, after, finding)) expect([where, promise]).toEqual([where, expect.closeTo(is ?? NaN, 6)])
        }
      }
    }
  }
  // Each kind of them often enough to mean something; and some of what they bring is said.
  expect(Object.entries(offered).filter(([, n]) => n > 20).map(([code]) => code).sort()).toEqual(['behind-down', 'larger-control', 'split-here', 'tap-down', 'thicker-cable'])
  expect(said).toBeGreaterThan(50)
}, 60_000)
