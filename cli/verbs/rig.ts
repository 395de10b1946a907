import { z } from 'zod'
import { READING_KINDS } from '#core/job/sections/readings/kinds'
import { FAULT_KINDS } from '#core/job/sections/repairs/schema'
import { speakersOf } from '#core/job/tree'
import { tidy } from '#core/line/report'
import { valueWords } from '#core/check/words'
import { EXERCISES } from '#core/practice/exercises'
import { MOST_SEED, readCode } from '#core/practice/code'
import { ACTS } from '#core/practice/game'
import { played } from '#core/practice/tracer'
import { RIG_WALKS } from '#core/practice/places'
import { rigOf, sealOf } from '#core/practice/rig'
import { faultsSay } from '#core/trace/words'
import { defineVerb } from '../verb'

const share = z.number().min(0).max(1)
const rigSchema = z.strictObject({
  code: z.string(), level: z.int(), name: z.string(), teaches: z.string(), speakers: z.int(), faults: z.int(),
  /** Proves afterwards that what was hidden was not changed. */
  sealed: z.string(),
  hidden: z.array(z.strictObject({ kind: z.enum(FAULT_KINDS), place: z.string().nullable(), says: z.string() })).nullable(),
  played: z.strictObject({
    path: z.array(z.strictObject({
      /** What it did; of a test and of opening a place which, and where. */
      does: z.enum(ACTS), test: z.enum([...READING_KINDS, ...RIG_WALKS]).nullable(), opens: z.enum(FAULT_KINDS).nullable(),
      place: z.string().nullable(), beside: z.string().nullable(),
      minutes: z.number(), read: z.array(z.string()), putRight: z.string().nullable(),
      leaves: z.array(z.strictObject({ says: z.string(), probability: share })),
    })),
    minutes: z.number(), tests: z.int(), opened: z.int(), isFound: z.boolean(), learnt: z.string(),
  }).nullable(),
})

export const rig = defineVerb({
  does: `a practice rig with faults hidden in it, the same for the same level (1 to ${EXERCISES.length}) and seed, or by its code; --solve: the tracer plays it; --reveal: what is hidden`,
  words: [],
  flags: { level: '[7]', seed: '[1]', code: '[R4-07-00003]' },
  switches: ['solve', 'reveal'],
  example: 'rig --level 7 --seed 3 --solve --reveal',
  answer: rigSchema,
  run: ({ flag, number, isSaid }) => {
    const code = flag('code')
    const of = code === undefined
      ? { level: Math.floor(number('level', { least: 1, most: EXERCISES.length })), seed: Math.floor(number('seed', { least: 0, most: MOST_SEED, otherwise: 1 })) }
      : readCode(code, EXERCISES.length)
    const made = rigOf(of)
    const { exercise, output, faults } = made
    const speakers = speakersOf(output.wiring)
    const labels = new Map(speakers.map(s => [s.id, s.label]))
    const nameOf = (nodeId: string | null) => nodeId === null ? output.label : labels.get(nodeId) ?? (nodeId === 'room' ? 'C1' : 'a group')
    const place = (nodeId: string | null) => nodeId === null ? null : nameOf(nodeId)
    const play = isSaid('solve') ? played(made) : null
    return tidy({
      code: made.code, level: of.level, name: exercise.name, teaches: exercise.before, speakers: speakers.length, faults: exercise.faults, sealed: sealOf(made),
      hidden: isSaid('reveal') ? faults.map(f => ({ kind: f.kind, place: place(f.nodeId), says: faultsSay([f], nameOf) })) : null,
      played: play && {
        path: play.play.steps.map(({ act, minutes, read, mended }, k) => ({
          does: act.do, test: act.do === 'test' ? act.kind : null, opens: act.do === 'name' ? act.kind : null,
          place: 'nodeId' in act ? nameOf(act.nodeId) : null, beside: 'besideId' in act ? place(act.besideId) : null, minutes,
          read: read.map(r => `${nameOf(r.nodeId)} ${valueWords(r.value)}`), putRight: mended && faultsSay([mended], nameOf),
          leaves: play.suspects[k]!.map(s => ({ says: faultsSay(s.faults, nameOf), probability: s.probability })),
        })),
        minutes: play.minutes, tests: play.tests, opened: play.acts.filter(a => a.do === 'name').length, isFound: play.isFound, learnt: exercise.after,
      },
    })
  },
})
