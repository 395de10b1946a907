import { FAULT_WORDS } from '#core/check/faultWords'
import { SOUND_WORDS, valueWords } from '#core/check/words'
import type { Output } from '#core/job/schema'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import { faultsSay, foundSays, minutesSay, testTitle } from '#core/trace/words'
import type { Best } from './best'
import type { ExerciseFile, readPlay } from './files'
import { isMisnamed, type Act, type Mistake, type Step, type Sum } from './game'
import type { PathStep } from './path'
import type { TestAt, WalkFound } from '#core/trace/next/test'
import { nameIn } from './places'
import type { Read } from './reads'

/** A play in words. */

export const MISTAKE_WORDS: Record<Mistake, string> = {
  'live-line': 'Stop: a meter on a line that is on is wrong, and may break. Switch off, unplug, then read.',
  'opened-live': 'Stop: opened with the amplifier on. It can hurt you, and two ends that touch can take the amplifier with them: off, and unplugged, first.',
  'on-unread': 'Switched on before the line was read: with a short on it the amplifier would have paid for it.',
  'on-overload': 'Stop: the amplifier protects itself. What hangs there is far below its plan: off, and read.',
  'right-there': 'Opened, looked at and closed again: it is right there.',
  'named-otherwise': 'Put right all the same, but it was something else:',
  'not-nulled': 'The leads were not nulled: so few ohms read 0.4 Ω too many.',
}
const FIRST_WORDS: Record<Mistake, string> = {
  'live-line': 'Stop: the line was on.', 'opened-live': 'Stop: the amplifier was on.', 'on-unread': 'Not read before.', 'on-overload': 'Stop: far below its plan.',
  'right-there': 'It is right there.', 'named-otherwise': 'It was something else.', 'not-nulled': '',
}
/** What life does not tell at once is told at the end alone. */
export const isToldAtOnce = (mistake: Mistake): boolean => mistake !== 'not-nulled'

/** A test by the names of its line. */
export const testSays = (test: TestAt, output: Output): string => testTitle(test, nameIn(output))

export function actSays(act: Act, output: Output): string {
  const nameOf = nameIn(output)
  switch (act.do) {
    case 'amplifier': return act.on ? 'Amplifier on' : 'Amplifier off, unplugged'
    case 'meter': return `Meter set to ${act.rangeOhm === null ? 'find its own range' : `its range of ${writeQuantity(act.rangeOhm, 'Ω')}`}, tone of ${writeQuantity(act.toneHz, 'Hz')}`
    case 'null-leads': return 'Leads touched together and nulled'
    case 'test': return testSays(act, output)
    case 'name': return `“${FAULT_WORDS[act.kind].at(nameOf(act.nodeId))}”: opened`
    case 'give-up': return 'Given up'
  }
}

/** Of a walk those that are not as they should be; else what was read. */
export function readSays(read: readonly Read[], output: Output): string {
  const nameOf = nameIn(output)
  const [first] = read
  if (!first) return ''
  if (read.length === 1) {
    const { value } = first
    if ('besideId' in value) return value.is === 'alike' ? `as loud as ${nameOf(value.besideId)}` : `${value.is} than ${nameOf(value.besideId)}`
    return first.kind === 'sound' ? SOUND_WORDS[value.is as keyof typeof SOUND_WORDS] ?? value.is : valueWords(value)
  }
  const right = first.kind === 'polarity-heard' ? RIGHT_WAY : PLAYS
  const runs = runsOf(read).filter(r => r.is !== right.is)
  if (runs.length === 0) return right.all
  const named = runs.map(({ from, to, is }) => `${nameOf(from)}${from === to ? '' : ` to ${nameOf(to)}`} ${foundSays(is)}`).join(', ')
  return `${named}${read.some(r => r.value.is === right.is) ? right.others : ''}`
}

/** What is as it should be on a walk. */
const PLAYS = { is: 'plays', all: 'all play as they should', others: '; the others play' }
const RIGHT_WAY = { is: 'right-way', all: 'all the right way round', others: '; the others the right way round' }

interface Run { from: string | null, to: string | null, is: WalkFound }
/** Of a walk those that lie side by side and are found alike: of forty a list would be read by nobody. */
function runsOf(read: readonly Read[]): Run[] {
  const runs: Run[] = []
  for (const { nodeId, value } of read) {
    const is = value.is as WalkFound
    const last = runs.at(-1)
    if (last?.is === is) last.to = nodeId
    else runs.push({ from: nodeId, to: nodeId, is })
  }
  return runs
}

/** What an act came to, at once. */
export function stepSays(step: Step, output: Output): string {
  const nameOf = nameIn(output)
  if (step.isDeaf) return 'Nothing is heard: the amplifier is off. That says nothing of the line.'
  if (step.isOverRange) return 'The meter shows that it is over its range: open, or more ohms than that. It is no reading yet.'
  const misnamed = isMisnamed(step) && step.mistake !== 'named-otherwise' ? MISTAKE_WORDS['named-otherwise'] : ''
  const mended = step.mended ? `${FAULT_WORDS[step.mended.kind].at(nameOf(step.mended.nodeId))}: put right.` : ''
  const mistake = step.mistake && isToldAtOnce(step.mistake) ? MISTAKE_WORDS[step.mistake] : ''
  return [mistake, step.mistake === 'opened-live' && step.mended === null ? MISTAKE_WORDS['right-there'] : '', misnamed, mended, readSays(step.read, output)].filter(Boolean).join(' ')
}

/** The same where it stands among all that was done: of what went wrong the first words, since all of it was told when it happened. */
export const stepSaysShort = (step: Step, output: Output): string =>
  step.mistake && isToldAtOnce(step.mistake) && step.mended === null ? `${FIRST_WORDS[step.mistake]}${step.read.length > 0 ? ` ${readSays(step.read, output)}` : ''}` : stepSays(step, output)

/** The best that there is: worked out, or the tracer's play; null minutes: it did not find it either. */
export type BestOf = { by: 'exact', best: Best } | { by: 'tracer', minutes: number | null, tests: number, acts: readonly Act[] }
export const bestMinutes = (of: BestOf): number | null => of.by === 'exact' ? of.best.here.minutes : of.minutes

const count = (n: number, one: string, many = `${one}s`) => `${n === 0 ? 'no' : n} ${n === 1 ? one : many}`

/** Against the best; never against a clock. */
export function scoreSays({ minutes, tests, isFound, isNamed }: Sum, best: BestOf, counts: ExerciseFile['counts'] = 'minutes'): string {
  const least = bestMinutes(best)
  const bestTests = best.by === 'exact' ? best.best.here.tests.length : best.tests
  const who = best.by === 'exact' ? 'The best possible play' : 'The tracer'
  const theirs = least === null ? `${who} does not name it in ${count(bestTests, 'test')} here` : `${who} takes ${minutesSay(least)} and ${count(bestTests, 'test')} here`
  if (!isFound) return `${theirs}.`
  const mine = `${minutesSay(minutes)[0]!.toUpperCase()}${minutesSay(minutes).slice(1)} and ${count(tests, 'test')}.`
  if (!isNamed) return `${mine} Put right, but named otherwise. ${theirs}.`
  if (least === null) return `${mine} ${theirs}: you were better.`
  if (counts === 'tests') return tests < bestTests ? `${mine} ${theirs}: you needed fewer tests.` : tests === bestTests ? `${mine} As few tests as can be.` : `${mine} ${theirs}.`
  // The exact best is the quickest in the mean; on one rig luck may beat it. Of the tracer that is not known.
  if (minutes < least - 0.5) return `${mine} ${theirs}: you were quicker.${best.by === 'exact' ? ' On this rig; in the mean over all that may be hidden nobody is.' : ''}`
  return minutes <= least + 0.5 ? `${mine} As quick as can be${best.by === 'exact' ? '' : ' by the tracer'}.` : `${mine} ${theirs}.`
}

/** What an act was worth, looked back on. */
export function pathSays({ told, better, lostMin }: PathStep, output: Output): string {
  if (!better || lostMin < 1) return told ? `It told ${bitsSay(told.bits)}.` : ''
  return `${told ? `It told ${bitsSay(told.bits)}. ` : ''}“${testSays(better.test, output)}” would have told ${bitsSay(better.bits)} in ${minutesSay(better.minutes)}: ${minutesSay(lostMin)} saved.`
}
/** One bit halves what may be there. */
const bitsSay = (bits: number): string => bits < 0.05 ? 'next to nothing' : bits < 0.6 ? `a little (${writeNumber(bits, 1)} bit)` : bits < 1.6 ? `about half (${writeNumber(bits, 2)} bits)` : `much (${writeNumber(bits, 2)} bits)`

/** A play that came back from somebody, in a line. */
export interface CameBack { who: string, of: string, says: string }
export function playCameBack({ file, rig, sum }: ReturnType<typeof readPlay>): CameBack {
  const mistakes = sum.risks === 0 ? '' : `, ${count(sum.risks, 'risk')}`
  const end = sum.isFound ? sum.isNamed ? 'found' : 'put right, named otherwise' : 'not found'
  return { who: file.who, of: `${rig.exercise.name}, ${rig.code}`, says: `${end} in ${minutesSay(sum.minutes)}, ${count(sum.tests, 'test')}, ${count(sum.ladders, 'ladder')}${mistakes}` }
}

/** What was still possible after an act: the likeliest by name, and how likely. */
export function leftSays({ suspects }: PathStep, output: Output): string {
  const nameOf = nameIn(output)
  const named = suspects.filter(s => s.probability >= 0.05).slice(0, 3)
  if (named.length === 0) return 'Nothing stands out.'
  return `Then: ${named.map(s => `${faultsSay(s.faults, nameOf)}, ${Math.round(100 * s.probability)} in 100`).join('; ')}.`
}
