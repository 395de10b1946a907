import { z } from 'zod'
import { makeProver } from '#core/check/proveJob'
import { predictLine } from '#core/check/predict'
import { valueWords } from '#core/check/words'
import { KIND_NAMES } from '#core/check/gradeWords'
import type { Fault } from '#core/faults/fault'
import { findPlace, outputsOf, speakersOf } from '#core/job/tree'
import type { Job, Output } from '#core/job/schema'
import { READING_KINDS } from '#core/job/sections/readings/kinds'
import { FAULT_KINDS } from '#core/job/sections/repairs/schema'
import { tidy } from '#core/line/report'
import { InputError } from '#core/quantity/inputError'
import { givenBy } from '#core/trace/given'
import { WALK_KINDS } from '#core/trace/next/test'
import { AT_THE_RACK } from '#core/trace/next/minutes'
import { drained } from '#core/quantity/steps'
import { isBeside } from '#core/trace/rank'
import { SPEAKS } from '#core/trace/reasons'
import { isWrongNow } from '#core/trace/earlier'
import { riskByReading } from '#core/trace/switchOn'
import { traceInSteps } from '#core/trace/trace'
import { answerSays, faultsSay } from '#core/trace/words'
import { defineVerb } from '../verb'

const faultSchema = z.strictObject({ kind: z.enum(FAULT_KINDS), place: z.string().nullable(), tapW: z.number().nullable(), amount: z.number().nullable() })
const share = z.number().min(0).max(1)
const traceSchema = z.strictObject({
  line: z.string(),
  suspects: z.array(z.strictObject({ faults: z.array(faultSchema), says: z.string(), probability: share, lineOhm: z.number().nullable(),
    for: z.array(z.string()), against: z.array(z.string()) })),
  /** Two faults that are not listed, all together; that were not tried, and that cannot be likely: no more than this. */
  unlisted: share, untried: share, leftOut: share,
  tried: z.strictObject({ singles: z.int(), pairs: z.int() }),
  amplifierMayBeOn: z.boolean(),
  next: z.array(z.strictObject({
    test: z.enum([...READING_KINDS, ...WALK_KINDS]), place: z.string().nullable(), beside: z.string().nullable(), bits: z.number(), minutes: z.number(),
    savesMinutes: z.number(),
    answers: z.array(z.strictObject({ answer: z.string(), chance: share, leaves: z.array(z.strictObject({ says: z.string(), probability: share })) })),
  })),
})

/** Suspects that are told: down to one in a thousand, and what stands beside them. */
const TOLD = 0.001

function lineOf(job: Job, asked: string | undefined): Output {
  const lines = outputsOf(job)
  const wrong = (output: Output) => isWrongNow(output, makeProver()(job, [{ output, predicted: predictLine(output) }]).get(output.id)!)
  const found = asked === undefined ? lines.find(wrong) ?? lines[0] : lines.find(o => o.label === asked)
  if (!found) throw new InputError(asked === undefined ? 'This job has no lines.' : `There is no line “${asked}” in this job.`, 0, lines.map(o => `--line ${o.label}`))
  return found
}

export const trace = defineVerb({
  does: 'what may be wrong on a line by what was read of it, two faults at once too, what speaks for each, and what to read next; without --line the first that reads wrong',
  words: ['FILE.plainmatch.json'],
  flags: { line: '[A4]' },
  example: 'trace garden.plainmatch.json --line A2',
  answer: traceSchema,
  run: ({ words: [path], flag }, { readJob }) => {
    const job = readJob(path!)
    const output = lineOf(job, flag('line'))
    const lines = outputsOf(job)
    const proof = makeProver()(job, lines.map(o => ({ output: o, predicted: predictLine(o) }))).get(output.id)!
    const labels = new Map(speakersOf(output.wiring).map(s => [s.id, s.label]))
    const nameOf = (nodeId: string | null): string => {
      if (nodeId === null) return output.label
      const node = findPlace(job, nodeId)?.branch.node
      return labels.get(nodeId) ?? (node && node.kind !== 'speaker' && node.through ? node.through.label : lines.find(o => o.id === nodeId)?.label ?? 'a group')
    }
    const readings = new Map([...proof.standing.values()].map(j => [j.reading.id, `${nameOf(j.reading.nodeId)} ${KIND_NAMES[j.reading.kind]} ${valueWords(j.reading.value)}`]))
    const view = drained(traceInSteps(givenBy(output, proof, lines), {
      standing: AT_THE_RACK, cannot: [], isBarred: riskByReading(output, proof) !== null, isAnswered: false,
      isWrong: isWrongNow(output, proof),
    }))
    const place = (nodeId: string | null) => nodeId === null ? null : nameOf(nodeId)
    const faultOf = ({ kind, nodeId, tapW, amount }: Fault) => ({ kind, place: place(nodeId), tapW, amount })
    return tidy({
      line: output.label,
      suspects: view.ranking.suspects.flatMap(({ faults, probability, lineOhm }, k) => probability < TOLD && !isBeside({ faults })
        ? []
        : [{
            faults: faults.map(faultOf), says: faultsSay(faults, nameOf), probability, lineOhm,
            for: (view.reasons[k] ?? []).filter(r => r.times >= SPEAKS).map(r => readings.get(r.readingId)!),
            against: (view.reasons[k] ?? []).filter(r => r.times <= 1 / SPEAKS).map(r => readings.get(r.readingId)!),
          }]),
      unlisted: view.ranking.unlisted, untried: view.ranking.untried, leftOut: view.ranking.leftOut, tried: view.ranking.tried, amplifierMayBeOn: view.mayBeOn,
      next: (view.next?.tests ?? []).map(t => ({
        test: t.kind, place: place(t.nodeId), beside: place(t.besideId), bits: t.bits, minutes: t.minutes, savesMinutes: t.saves,
        answers: t.answers.map(a => ({ answer: answerSays(a.answer, t, nameOf), chance: a.chance, leaves: a.leaves.map(l => ({ says: faultsSay(l.faults,
          nameOf), probability: l.probability })) })),
      })),
    })
  },
})
