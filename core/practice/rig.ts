import type { Fault } from '#core/faults/fault'
import { FAULTS } from '#core/faults/index'
import type { Output, Reading, ReadingValue, Sound, Speaker } from '#core/job/schema'
import { SOUNDS } from '#core/job/sections/readings/schema'
import { branchesOf, speakersOf } from '#core/job/tree'
import { hashOf } from '#core/quantity/hash'
import { InputError } from '#core/quantity/inputError'
import { seeded, type Chance } from '#core/quantity/seeded'
import { normalAt } from '#core/trace/chances'
import { coilLabelOhm, deviationsOf } from '#core/trace/deviations'
import { cutOutChance, heardOf, offDb, soundsChance } from '#core/trace/ears'
import { predictive } from '#core/trace/next/answers'
import type { TestAt } from '#core/trace/next/test'
import { WALKS } from '#core/trace/next/walk'
import { METER_HZ } from '#core/check/readingBands'
import { brokenLine, offsets } from '#core/trace/ohms'
import { outcomeOf, planOf, type Outcome, type Plan } from '#core/trace/outcome'
import { isTurnedKind } from '#core/trace/weigh'
import { writeCode, type RigCode } from './code'
import { EXERCISES, type Exercise } from './exercises'
import { soundsIn, timesIn, type Read } from './reads'

/**
 * A rig: a line of an exercise with faults hidden in it, and units that are what units are. All of it follows from its code. What is read of it is solved on
 * the line as it then is; what eyes and ears make of it is drawn from the same chances that the tracer goes by.
 */
export interface Rig {
  code: string
  exercise: Exercise
  output: Output
  plan: Plan
  /** What is hidden. */
  faults: readonly Fault[]
  truth: Outcome
  /** Which of the samples of what models may be this line's are. */
  sample: number
  /** What was put right so far: whoever listens after it slips anew. */
  mends: number
}

/** Same kinds at the same places; how large each is nobody is asked. */
export const isIt = (faults: readonly Fault[], hidden: readonly Fault[]): boolean =>
  faults.length === hidden.length && hidden.every(h => faults.some(f => f.kind === h.kind && f.nodeId === h.nodeId))

/** Chance for one thing of a rig: read twice, it reads the same. */
const chanceFor = (rig: Pick<Rig, 'code'>, what: string): Chance => seeded(hashOf(`${rig.code} ${what}`))

/** All that may be hidden on the line of an exercise. */
export function candidatesOf({ line, kinds }: Pick<Exercise, 'line' | 'kinds'>): Fault[] {
  const speakers = speakersOf(line.wiring)
  return FAULTS.filter(f => kinds === null || kinds.includes(f.kind)).flatMap(f => f.candidates(line, speakers, []))
}

/** The same line after something was put right: units stay what they are. */
export function mendedRig(rig: Rig, faults: readonly Fault[]): Rig {
  return { ...rig, faults, truth: outcomeOf(rig.plan, faults), mends: rig.mends + 1 }
}

function drawnFault(output: Output, { kinds }: Exercise, chance: Chance): Fault {
  const speakers = speakersOf(output.wiring)
  const possible = FAULTS.filter(f => kinds === null || kinds.includes(f.kind)).map(f => ({ f, of: f.candidates(output, speakers, []) }))
    .filter(({ of }) => of.length > 0)
  let left = chance() * possible.reduce((sum, { f }) => sum + f.prior, 0)
  const { of } = possible.find(({ f }) => (left -= f.prior) < 0) ?? possible.at(-1)!
  return of[Math.floor(chance() * of.length)]!
}

/** @throws InputError for a level that is not there */
export function rigOf(of: RigCode): Rig {
  const exercise = EXERCISES[of.level - 1]
  if (!exercise) throw new InputError(`There is no level ${of.level}: they go from 1 to ${EXERCISES.length}.`, 0, [])
  return rigFrom(exercise, writeCode(of))
}

/**
 * A rig of any exercise, as of somebody's own line. The same exercise and the same code are the same rig.
 * @throws InputError where its line can have none of its faults
 */
export function rigFrom(exercise: Exercise, code: string, hidden: readonly Fault[] | null = null): Rig {
  const { line: output } = exercise
  const chance = seeded(hashOf(code))
  const deviations = deviationsOf(output, new Map(), new Set())
  const plan = planOf(output, deviations)
  const sample = Math.floor(chance() * deviations.samples)
  const faults: Fault[] = [...hidden ?? []]
  const places = new Set(candidatesOf(exercise).map(f => f.nodeId))
  if (places.size < exercise.faults) throw new InputError('This line can have none of these faults: there is nothing to hide.', 0, [])
  while (faults.length < exercise.faults) {
    const fault = drawnFault(output, exercise, chance)
    // Two are two places: one that lies on the other cannot be told from it.
    if (faults.every(f => f.nodeId !== fault.nodeId && f.kind !== fault.kind)) faults.push(fault)
  }
  return { code, exercise, output, plan, faults, truth: outcomeOf(plan, faults), sample, mends: 0 }
}

/** What nobody may know before the end, as a number: shown beforehand, it proves afterwards that nothing was changed. */
export const sealOf = ({ code, faults }: Pick<Rig, 'code' | 'faults'>): string =>
  hashOf(`${code} ${faults.map(f => [f.kind, f.nodeId, f.tapW, f.way, f.amount, f.withId].join()).join(' ')}`).toString(16).padStart(8, '0')

/** A meter is right within so much, and within a tenth of an ohm: one sigma each. Common practice, no source. */
const METER = 0.02
const METER_OHM = 0.05

const bellOf = (chance: Chance) => normalAt(Math.min(0.999, Math.max(0.001, chance())))
const shown = (ohm: number, chance: Chance): ReadingValue => ({ is: 'ohm', ohm: Number(Math.max(0, ohm * (1 + METER * bellOf(chance)) + METER_OHM * bellOf(chance)).toPrecision(3)) })

/** All the cable of a line, m. */
const lengthOf = (wiring: Output['wiring']): number => branchesOf(wiring).reduce((sum, { lead }) => sum + (lead?.lengthM ?? 0), 0)

function ohmsAt(rig: Rig, nodeId: string | null, frequencyHz: number): ReadingValue {
  const place = { nodeId, frequencyHz }
  const chance = chanceFor(rig, `ohms ${nodeId ?? ''}${frequencyHz === METER_HZ ? '' : ` ${frequencyHz}`}`)
  const sight = rig.truth.sight(place)
  if (sight === null || sight.seen.state === 'open') {
    const broken = brokenLine(place, lengthOf(rig.output.wiring))
    return broken === null || chance() < 0.6 ? { is: 'open' } : shown(broken.leastOhm * (broken.mostOhm / broken.leastOhm) ** chance(), chance)
  }
  if (sight.seen.state === 'short') return shown(0, chance)
  const off = offsets(rig.plan.deviations, sight, frequencyHz)[rig.sample]!
  return shown(sight.seen.ohm * Math.exp(off + Math.sqrt(sight.variance) * bellOf(chance)), chance)
}

/** Of a coil that is right: four fifths of its label, as its model and itself are. Common practice, no source. */
const COPPER_OF_LABEL = 0.8
function coilAt(rig: Rig, speaker: Speaker): ReadingValue {
  const chance = chanceFor(rig, `coil ${speaker.id}`)
  const label = coilLabelOhm(speaker) ?? 8
  const { copper, modelOf, own } = rig.plan.deviations
  const rightOhm = COPPER_OF_LABEL * label * Math.exp((copper[modelOf.get(speaker.id)!]?.[rig.sample] ?? 0) + 0.4 * (own.get(speaker.id) ?? 0) * bellOf(chance))
  const at = rig.truth.definitions.filter((_, k) => rig.faults[k]!.nodeId === speaker.id)
  const worst = at.find(d => d.coil.right !== 1)
  let left = chance()
  const is = Object.entries(worst?.coil ?? { right: 1 }).find(([, p]) => (left -= p ?? 0) < 0)?.[0] ?? 'right'
  switch (is) {
    case 'open': return { is: 'open' }
    case 'high': return shown(label * (3 + 7 * chance()), chance)
    case 'low': return shown(rightOhm * (0.35 + 0.25 * chance()), chance)
    case 'short': return shown(0.1, chance)
    default: return shown(rightOhm, chance)
  }
}

/** A chance of its own for what is read once more: it slips anew. */
const again = ({ mends }: Rig, times: number): string => `${mends === 0 ? '' : ` after ${mends}`}${times === 0 ? '' : ` again ${times}`}`

/** Who listens again mostly hears what is there, and slips anew. */
function soundAt(rig: Rig, nodeId: string, reads: readonly Read[]): Sound {
  const { plan, truth } = rig
  const before = soundsIn(reads, nodeId)
  if (isCutOut(rig)) return 'silent'
  const chances = SOUNDS.map(s => soundsChance([...before, s], offDb(nodeId, truth, plan), heardOf(nodeId, truth, plan)))
  let left = chanceFor(rig, `sound ${nodeId}${again(rig, before.length)}`)() * chances.reduce((a, b) => a + b, 0)
  return SOUNDS.find((_, k) => (left -= chances[k]!) < 0) ?? 'plays'
}

const isCutOut = (rig: Rig): boolean => chanceFor(rig, 'protection')() < cutOutChance(rig.truth.solved.head, rig.plan.drawn.solved.head)

/** Which way round a speaker is by a pulse in passing, which comes again until it is told. */
function pulseAt(rig: Rig, nodeId: string, before: readonly Read[]): 'right-way' | 'reversed' | 'cannot-tell' {
  const { ways, chanceAt, whenCut } = WALKS['pulse-walk']
  const chances = ways.map(chanceAt(nodeId, rig.truth, rig.plan))
  let left = chanceFor(rig, `pulse ${nodeId}${again(rig, timesIn(before, 'polarity-heard', nodeId))}`)() * chances.reduce((a, b) => a + b, 0)
  return (isCutOut(rig) ? whenCut : ways.find((_, k) => (left -= chances[k]!) < 0) ?? ways[0]) as 'right-way'
}

/**
 * What a test reads: one value, or of a walk one of each speaker that was not noted so yet. Null: it cannot be taken on this line.
 * @param toneHz of an impedance meter
 * @param before what was read since something was last put right, oldest first
 */
export function readRig(rig: Rig, test: TestAt, unheard: readonly string[] = [], toneHz = METER_HZ, before: readonly Read[] = []): Read[] | null {
  const speaker = speakersOf(rig.output.wiring).find(s => s.id === test.nodeId) ?? null
  const one = (value: ReadingValue) => [{ kind: test.kind as Reading['kind'], nodeId: test.nodeId, value }]
  switch (test.kind) {
    case 'pulse-walk': return unheard.map(nodeId => ({ kind: 'polarity-heard', nodeId, value: { is: pulseAt(rig, nodeId, before), how: 'pulse', against: null } }))
    case 'walk': return unheard.map(nodeId => ({ kind: 'sound', nodeId, value: { is: soundAt(rig, nodeId, before) } }))
    case 'sound': return one({ is: soundAt(rig, test.nodeId!, before) })
    case 'line-impedance': return one(ohmsAt(rig, null, toneHz))
    case 'outward-impedance': return one(ohmsAt(rig, test.nodeId, toneHz))
    case 'coil-dcr': return speaker ? one(coilAt(rig, speaker)) : null
  }
  const weight = new Float64Array(rig.plan.deviations.samples)
  weight[rig.sample] = 1
  const of = predictive(test, [{ outcome: rig.truth, sampleWeight: weight }], rig.plan, speaker)
  if (!of) return null
  // Which way round it is, a tester is wrong about now and then; a dial and a swap are what they are.
  const kind = test.kind as Reading['kind']
  const anew = isTurnedKind(kind) ? again(rig, timesIn(before, kind, test.nodeId)) : ''
  const chance = chanceFor(rig, `${test.kind} ${test.nodeId ?? ''} ${test.besideId ?? ''}${anew}`)
  let left = chance()
  const k = of.chances[0]!.findIndex(p => (left -= p) < 0)
  const answer = of.answers[Math.max(0, k)]!
  if ('value' in answer) return one(answer.value)
  // A leg to earth: low, or open.
  return 'lowOhm' in answer ? one(answer.lowOhm === null ? shown(50, chance) : { is: 'open' }) : one({ is: 'open' })
}
