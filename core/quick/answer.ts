import { bestTap, valveOf, writeRating, type OutputRating } from '#core/amplifier/index'
import type { Grade } from '#core/check/verdict'
import { emptyJob } from '#core/job/document'
import type { Job } from '#core/job/schema'
import { aroundOf } from '#core/line/surroundings'
import { evaluateJob, evaluateOutput, type LineEvaluation } from '#core/line/evaluate'
import type { NewId } from '#core/hands/intents'
import { writeCable } from '#core/quantity/cable'
import type { UndecidedError, QuickLine } from './parse'
import { parseQuick } from './parse'
import { toJob, toOutput } from './toJob'

/** Ids for a job that nobody keeps. */
function countedIds(): () => string {
  let count = 0
  return () => `q${++count}`
}

export interface Quick { line: QuickLine, job: Job, evaluation: LineEvaluation }

/** Reads, wires and evaluates a typed line. @throws InputError */
export function quick(text: string): Quick {
  const line = parseQuick(text)
  const job = jobOfLine(line, countedIds())
  return { line, job, evaluation: evaluateJob(job)[0]! }
}

/** The job that a line is kept as: the one that it was answered by. */
export const jobOfLine = (line: QuickLine, newId: NewId): Job => onBestTap(toJob(line, newId))

/** A valve output of which no tap is named is answered, and kept, on the tap that its load is made for. */
function onBestTap(job: Job): Job {
  const [amplifier] = job.amplifiers
  const [output] = amplifier!.outputs
  const rating = valveOf(output!.rating)
  if (!rating || rating.tapOhm !== null) return job
  const loadOhm = evaluateJob(job)[0]!.upOhm
  const tapOhm = loadOhm === null ? null : bestTap(rating.tapsOhm, loadOhm)
  return { ...job, amplifiers: [{ ...amplifier!, outputs: [{ ...output!, rating: { ...rating, tapOhm } }] }] }
}

/** One wiring of equal speakers: `strings` in parallel, each of `inString` in series. */
export interface Way {
  strings: number
  inString: number
  /** As it is typed. */
  text: string
  loadOhm: number
  /** The least and the most that the output gives into it, W; null while it is not known or not allowed. */
  powerW: number | null
  mostW: number | null
  grade: Grade
}

/** More speakers than this are wired by groups that the person has in mind: a list of ways helps nobody. */
const MOST_IN_WAYS = 64

/** Every wiring of so many equal speakers, each as `item` says it, on an output: all in parallel, strings of any number that divides, all in series. */
export function waysOf(count: number, item: string, rating: OutputRating, over: QuickLine['over'] = null): Way[] {
  if (count < 2 || count > MOST_IN_WAYS) return []
  return Array.from({ length: count }, (_, k) => k + 1).filter(inString => count % inString === 0).map((inString) => {
    const strings = count / inString
    const text = inString === 1 ? `${count} x ${item} parallel` : strings === 1 ? `${count} x ${item} series` : `${strings} x (${inString} x ${item} series) parallel`
    const output = toOutput({ ...parseQuick(text), rating, over }, countedIds())
    const { loadOhm, amplifierW, mostW, grade } = evaluateOutput(output, aroundOf(emptyJob(''), output.id))
    return { strings, inString, text, loadOhm: loadOhm!, powerW: amplifierW, mostW, grade }
  })
}

/** What the same plain speakers would make, wired otherwise: every other way than the one typed; empty where they are not equal. */
export function otherWays({ line, evaluation }: Quick): Way[] {
  const { drops } = evaluation
  const [first] = drops
  const isLike = ({ ohm, speaker }: (typeof drops)[number]) => ohm === first?.ohm && speaker.continuousW === first?.speaker.continuousW
  if (evaluation.kind !== 'low-impedance' || evaluation.throughs.length > 0 || !first?.ohm || !drops.every(isLike)) return []
  const { continuousW } = first.speaker
  return waysOf(drops.length, continuousW === null ? `${first.ohm}` : `${first.ohm} ohm ${continuousW} W`, line.rating, line.over).filter(way => Math.abs(way.loadOhm - evaluation.loadOhm!) > 0.01 * way.loadOhm)
}

/** A line wired otherwise, on the same output. */
export function wiredOtherwise({ line }: Quick, way: Way): string {
  const rating = writeRating(line.rating)
  const { over } = line
  const cable = over ? ` over ${over.lengthM} m of ${writeCable(over.cable)}${over.isEach ? ' each' : ''}` : ''
  return rating === '' ? `${way.text}${cable}` : `${way.text}${cable} on ${rating}`
}

/** A typed line with so many speakers wired so: the count in it, from `at` to `end`, gives way to the wiring. */
export function withWay({ at, end, line }: UndecidedError, way: Way): string {
  const rest = line.text.slice(end)
  return `${line.text.slice(0, at)}${way.text}${/^\s*(,|on\b|into\b|at\b|@|over\b|through\b|$)/i.test(rest) ? rest : ` on${rest}`}`
}
