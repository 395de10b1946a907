import { describe, expect, test } from '@jest/globals'
import FFT from 'fft.js'
import { faultAt } from '#core/faults/fault'
import { speakersOf } from '#core/job/tree'
import { drained } from '#core/quantity/steps'
import { jobOf, outputOf } from '#core/testing/jobs'
import { SEED } from '#core/testing/runs'
import { seeded } from '#core/testing/trees'
import { AT_THE_RACK, mendKey, mendMinutes } from '#core/trace/next/minutes'
import type { TestAt } from '#core/trace/next/test'
import { bestPlay, hypothesesOf, MOST_EXACT, problemOf, solved, type Problem } from './best'
import { writeCode } from './code'
import { EXERCISES } from './exercises'
import { checkExercise, codeOfExercise, readExercise, readPlay, rigOfFile, type ExerciseFile, type PlayFile } from './files'
import { beginPlay, LEADS_OHM, minutesFor, playOf, stepped, sumOf, type Act, type Play } from './game'
import { pathSays, readSays, scoreSays, stepSays, stepSaysShort } from './gameWords'
import { heardIn } from './listen'
import { lostAt, pathOf, type PathStep } from './path'
import { placesOf, testsAt } from './places'
import { readRig, rigFrom, rigOf, type Rig } from './rig'
import { filtered, gainAt, MOST_SAMPLE, programme, RATE_HZ, SAMPLES, samplesOf, type Heard } from './sound'

const at = (kind: Extract<Act, { do: 'test' }>['kind'], nodeId: string | null = null, besideId: string | null = null): Act => ({ do: 'test', kind, nodeId, besideId })
const on: Act = { do: 'amplifier', on: true }
const off: Act = { do: 'amplifier', on: false }
const nulled: Act = { do: 'null-leads' }
const HEAD = at('line-impedance')
/** A rig of an exercise with a fault of one's own choice in it. */
const hiding = (level: number, ...faults: ReturnType<typeof faultAt>[]): Rig => rigFrom(EXERCISES[level - 1]!, 'R3-99-00001', faults)
const name = (kind: Extract<Act, { do: 'name' }>['kind'], nodeId: string | null): Act => ({ do: 'name', kind, nodeId })

describe('an act and what it comes to', () => {
  const open = hiding(7, faultAt('coil-open', 's3'))
  const short = hiding(10, faultAt('short-at-drop', 's2'))
  const last = (rig: Rig, ...acts: Act[]) => playOf(rig, acts).steps.at(-1)!
  test.each<[string, Rig, Act[], { mistake: string | null, isDeaf?: boolean, minutes?: number, says?: string, reads?: number }]>([
    ['an ohmmeter on a line that is on is told at once and reads nothing', open, [HEAD, on, at('coil-dcr', 's1')], { mistake: 'live-line', minutes: 1, says: 'Stop: a meter on a line that is on', reads: 0 }],
    ['ears with the amplifier off hear nothing, and that says nothing', open, [at('sound', 's1')], { mistake: null, isDeaf: true, says: 'the amplifier is off', reads: 0 }],
    ['on before it was read', open, [on], { mistake: 'on-unread', minutes: 1, says: 'before the line was read' }],
    ['legs to earth are not the head', open, [at('leg-earth'), on], { mistake: 'on-unread' }],
    ['on after it was read', open, [HEAD, on], { mistake: null, minutes: 1 }],
    ['on to a short', short, [HEAD, on], { mistake: 'on-overload', says: 'protects itself' }],
    ['off costs a minute and is no mistake', open, [HEAD, on, off], { mistake: null, minutes: 1 }],
    ['a coil with the leads in it: told at the end alone', open, [at('coil-dcr', 's1')], { mistake: 'not-nulled', reads: 1 }],
    ['nulled', open, [nulled, at('coil-dcr', 's1')], { mistake: null, reads: 1 }],
    ['many ohms do not mind leads', open, [HEAD], { mistake: null, reads: 1 }],
    ['over its range is no reading: open or more, nobody knows', open, [{ do: 'meter', rangeOhm: 200, toneHz: 1000 }, HEAD], { mistake: null, minutes: 1.5, reads: 0, says: 'over its range' }],
    ['an open coil on a range looks the same', open, [{ do: 'meter', rangeOhm: 200, toneHz: 1000 }, at('coil-dcr', 's3')], { mistake: null, reads: 0, says: 'over its range' }],
    ['within its range it reads', open, [nulled, { do: 'meter', rangeOhm: 200, toneHz: 1000 }, at('coil-dcr', 's1')], { mistake: null, reads: 1 }],
    ['a meter that finds its own range reads open as open', open, [at('coil-dcr', 's3')], { mistake: null, reads: 1, says: 'open' }],
    ['set as it was costs nothing and is nothing', open, [HEAD, { do: 'meter', rangeOhm: null, toneHz: 1000 }], { mistake: null, minutes: 1.5, reads: 1 }],
    ['a place that is right', open, [name('coil-open', 's1')], { mistake: 'right-there', minutes: mendMinutes([faultAt('coil-open', 's1')]), says: 'it is right there' }],
    ['the same unit by another name', open, [name('coil-high', 's3')], { mistake: 'named-otherwise', says: 'it was something else: Coil of 03 open' }],
    ['by its name', open, [name('coil-open', 's3')], { mistake: null, says: 'put right' }],
    ['opened with the line on: told at once, put right all the same, a minute for the switch', open, [HEAD, on, name('coil-open', 's3')], { mistake: 'opened-live', minutes: 9, says: 'off, and unplugged, first. Coil of 03 open: put right' }],
    ['opened with the line on, and right there', open, [HEAD, on, name('coil-open', 's1')], { mistake: 'opened-live', minutes: 9, says: 'it is right there' }],
    ['opened with the line on, by another name', open, [HEAD, on, name('coil-high', 's3')], { mistake: 'opened-live', says: 'it was something else: Coil of 03 open' }],
    ['a knob that is turned may stay on', hiding(11, faultAt('control-at-zero', 'room')), [HEAD, on, name('control-at-zero', 'room')], { mistake: null, minutes: 2, says: 'put right' }],
    ['a walk hears them all', open, [HEAD, on, at('walk')], { mistake: null, reads: 4 }],
  ])('%s', (_, rig, acts, wanted) => {
    const step = last(rig, ...acts)
    expect([step.mistake, step.isDeaf]).toEqual([wanted.mistake, wanted.isDeaf ?? false])
    if (wanted.minutes !== undefined) expect(step.minutes).toBe(wanted.minutes)
    if (wanted.reads !== undefined) expect(step.read).toHaveLength(wanted.reads)
    expect(stepSays(step, rig.output)).toContain(wanted.says ?? '')
    if (step.mistake === 'not-nulled') expect(stepSays(step, rig.output)).not.toContain('nulled')
    // Among all that was done what went wrong is told in its first words; what was read and put right is all there.
    const [short, long] = [stepSaysShort(step, rig.output), stepSays(step, rig.output)]
    if (step.mistake === null || step.mistake === 'not-nulled' || step.mended) expect(short).toBe(long)
    else expect([short.length > 5, short.length < 30]).toEqual([true, true])
  })

  test('what is read is what the rig reads; leads stand in it until they are nulled; touched anew it differs a little', () => {
    const ohm = (play: Play) => play.steps.map(s => s.read[0]?.value).flatMap(v => v?.is === 'ohm' ? v.ohm : [])
    const [with0, nulledOnce, again] = ohm(playOf(open, [at('coil-dcr', 's1'), nulled, at('coil-dcr', 's1'), at('coil-dcr', 's1')])) as [number, number, number]
    const [pure] = readRig(open, { kind: 'coil-dcr', nodeId: 's1', besideId: null })!
    expect(with0).toBeCloseTo((pure!.value as { ohm: number }).ohm + LEADS_OHM, 2)
    expect([Math.abs(nulledOnce - with0 + LEADS_OHM) < 0.15, again !== nulledOnce, Math.abs(again - nulledOnce) < 0.2]).toEqual([true, true, true])
    // By wire it is what the meter said, leads and all.
    expect(ohm(playOf(open, [{ ...at('coil-dcr', 's1'), wireOhm: 6.31 } as Act]))).toEqual([6.31])
    expect(playOf(open, [{ ...at('coil-dcr', 's1'), wireOhm: null } as Act]).steps[0]!.read[0]!.value).toEqual({ is: 'open' })
    expect(ohm(playOf(open, [nulled, at('coil-dcr', 's1')]))).toEqual([(pure!.value as { ohm: number }).ohm])
  })

  interface Told { toneHz?: number, value: { ohm: number } }
  test('another tone is another reading, and is kept with it: a long line of plain drivers reads more at 1 kHz than at 330 Hz', () => {
    const play = playOf(hiding(6, faultAt('coil-open', 's1')), [HEAD, { do: 'meter', rangeOhm: null, toneHz: 330 }, HEAD])
    const [usual, low] = play.steps.flatMap(s => s.read).map(r => ({ toneHz: r.toneHz, value: r.value as { ohm: number } })) as [Told, Told]
    expect([usual.toneHz, low.toneHz, usual.value.ohm !== low.value.ohm, play.steps[1]!.minutes]).toEqual([undefined, 330, true, 0.2])
    const path = drained(pathOf(hiding(6, faultAt('coil-open', 's1')), play.steps.map(s => s.act)))
    expect(path[2]!.truth).toBeGreaterThan(0)
  })

  test('it ends when all that is hidden is put right; of two the other one is still there; after the end nothing is done any more', () => {
    const two = hiding(15, faultAt('coil-open', 's3'), faultAt('open-at-drop', 's30'))
    const one = playOf(two, [HEAD, name('coil-open', 's3')])
    expect([one.isOver, one.isHeadRead, one.rig.faults.map(f => f.kind)]).toEqual([false, false, ['open-at-drop']])
    // Another line: what was heard before is heard anew.
    const walked = playOf(two, [HEAD, on, at('sound', 's1'), off, name('coil-open', 's3'), HEAD, on, at('walk')])
    expect(walked.steps.at(-1)!.read).toHaveLength(40)
    const both = stepped(one, name('open-at-drop', 's30'))
    expect([both.isOver, stepped(both, HEAD) === both, sumOf(both)]).toEqual([true, true, expect.objectContaining({ isFound: true, isNamed: true, tests: 1,
      mistakes: 0 })])
    const given = playOf(two, [HEAD, { do: 'give-up' }])
    expect([given.isOver, sumOf(given).isFound]).toEqual([true, false])
    expect(sumOf(playOf(open, [name('coil-high', 's3')]))).toMatchObject({ isFound: true, isNamed: false, mistakes: 1, risks: 0 })
    expect(sumOf(playOf(open, [on, at('sound', 's1'), at('coil-dcr', 's2')]))).toMatchObject({ tests: 2, mistakes: 2, risks: 2, ladders: 0 })
    expect(sumOf(playOf(open, [nulled, at('coil-dcr', 's1'), at('looked', 's1'), at('coil-dcr', 's2')])).ladders).toBe(2)
    // Who opened a place with the line on has it off then, is up there, and named another thing all the same.
    const live = playOf(open, [HEAD, on, name('coil-open', 's1')])
    expect([live.isOn, live.isUp, sumOf(live)]).toEqual([false, true, expect.objectContaining({ mistakes: 1, risks: 1 })])
    expect(sumOf(playOf(open, [HEAD, on, name('coil-high', 's3')]))).toMatchObject({ isFound: true, isNamed: false, risks: 1 })
    expect(stepped(live, at('looked', 's1')).steps.at(-1)!.ladders).toBe(0)
  })

  test.each<[string, string[], string]>([
    ['all', ['plays', 'plays', 'plays'], 'all play as they should'], ['one', ['plays', 'silent', 'plays'], '02 silent; the others play'], ['from one on', ['plays', 'silent', 'silent', 'silent'], '02 to 04 silent; the others play'],
    ['none plays', ['silent', 'silent'], '01 to 02 silent'], ['of two kinds', ['thin', 'plays', 'silent', 'silent'], '01 thin, 03 to 04 silent; the others play'],
  ])('a walk by ear in words: %s', (_, sounds, says) => expect(readSays(sounds.map((is, k) => ({ kind: 'sound' as const, nodeId: `s${k + 1}`, value: { is } as never })), open.output)).toBe(says))
  test.each<[string, string[], string]>([
    ['all', ['right-way', 'right-way'], 'all the right way round'], ['from one on', ['right-way', 'reversed', 'reversed'], '02 to 03 the other way round; the others the right way round'],
    ['one is not told', ['cannot-tell', 'reversed'], '01 not to be told, 02 the other way round'],
  ])('a walk by the pulse in words: %s', (_, ways, says) => expect(readSays(ways.map((is, k) => ({ kind: 'polarity-heard' as const, nodeId: `s${k + 1}`, value: { is, how: 'pulse', against: null } as never })), open.output)).toBe(says))
  test('a walk by the pulse tells of each that it was not at yet; it is offered where all are behind transformers', () => {
    const row = hiding(7, faultAt('turned-round', 's3'))
    const ids = ['s1', 's2', 's3', 's4']
    const one = playOf(row, [HEAD, on, at('polarity-heard', 's2'), at('walk')])
    const walked = stepped(one, at('pulse-walk')).steps.at(-1)!
    expect(walked.read.map(r => r.nodeId)).toEqual(ids.filter(id => id !== 's2'))
    expect(walked.read.map(r => [r.kind, r.value])).toEqual(['right-way', 'reversed', 'right-way'].map(is => ['polarity-heard', { is, how: 'pulse', against: null }]))
    // With the line a short there is nothing to be told.
    expect(last(short, on, at('pulse-walk')).read.map(r => r.value.is)).toEqual(Array.from({ length: 8 }, () => 'cannot-tell'))
    const offers = ['4 x 5 W on 70 V', '1 x 5 W on 70 V', '8 || 8 on 100 W at 4', '8'].map(line => testsAt(outputOf(jobOf(line)), null).some(t => t.kind === 'pulse-walk'))
    expect(offers).toEqual([true, false, false, false])
  })

  test('a play is its acts: done anew on another day, up to any point, it is the same', () => {
    const chance = seeded(SEED)
    for (let k = 0; k < 20; k++) {
      const of = { level: 1 + Math.floor(chance() * 13), seed: k }
      const rig = rigOf(of)
      const acts: Act[] = []
      for (let n = 0; n < 12; n++) acts.push(randomAct(rig, chance))
      const whole = playOf(rig, acts)
      const upTo = Math.floor(chance() * acts.length)
      expect(playOf(rigOf(of), acts).steps).toEqual(whole.steps)
      expect(whole.steps.slice(0, playOf(rig, acts.slice(0, upTo)).steps.length)).toEqual(playOf(rig, acts.slice(0, upTo)).steps)
      expect(sumOf(whole).minutes).toBeCloseTo(whole.steps.reduce((sum, s) => sum + s.minutes, 0), 9)
    }
  })
})

function randomAct(rig: Rig, chance: () => number): Act {
  const places = placesOf(rig.output)
  const place = places[Math.floor(chance() * places.length)]!
  const tests = testsAt(rig.output, place.id)
  const of = chance()
  if (of < 0.15) return { do: 'amplifier', on: chance() < 0.5 }
  if (of < 0.2) return nulled
  return { do: 'test', ...tests[Math.floor(chance() * tests.length)]! }
}

test('every test that is offered can be read, and costs something from anywhere; without its tool it is not done', () => {
  for (const level of [1, 2, 4, 6, 8, 9, 11]) {
    const rig = rigOf({ level, seed: 2 })
    for (const { id } of placesOf(rig.output)) for (const test of testsAt(rig.output, id)) {
      expect([level, test, readRig(rig, test, speakersOf(rig.output.wiring).map(s => s.id))]).not.toContain(null)
      expect(minutesFor(beginPlay(rig), test)).toBeGreaterThan(0)
    }
  }
  const bare = rigFrom({ ...EXERCISES[6]!, without: ['ohmmeter'] }, 'R3-99-00002')
  expect([minutesFor(beginPlay(bare), at('coil-dcr', 's1') as never), playOf(bare, [at('coil-dcr', 's1')]).steps]).toEqual([null, []])
})

describe('the best possible play', () => {
  /** Least expected minutes, written anew: every order of mends and tests, no cache, no bound. */
  function brute(p: Problem, left: readonly number[], standing: Parameters<Problem['minutesFor']>[1], isRead = false): number {
    if (left.length === 0) return 0
    const chance = left.reduce((sum, h) => sum + p.priors[h]!, 0)
    const opened = left.map(h => (p.mends[h]!.minutes + (standing.isOn && p.mends[h]!.isOpened ? 1 : 0)) * chance
      + brute(p, left.filter(x => x !== h), { ...standing, atId: p.mends[h]!.atId, isUp: p.mends[h]!.isUp,
        isOn: standing.isOn && !p.mends[h]!.isOpened }, isRead))
    const tested = p.doables.filter(d => (isRead || !d.needsHead) && (new Set(left.map(h => d.answers[h])).size > 1 || (d.isHead
      && !isRead))).map(d => p.minutesFor(d.test, standing) * chance + [...new Set(left.map(h => d.answers[h]))]
      .reduce<number>((sum, answer) => sum + brute(p, left.filter(h => d.answers[h] === answer), p.after(d.test, standing), isRead || d.isHead), 0))
    return Math.min(...opened, ...tested)
  }
  test.each([1, 3, 4])('level %i against every order of everything', (level) => {
    const problem = problemOf(rigOf({ level, seed: 1 }))!
    expect(solved(problem, 0).minutes).toBeCloseTo(brute(problem, problem.priors.map((_, h) => h), AT_THE_RACK), 9)
  })
  test('random problems of four against every order; what it does for each of them comes to its mean', () => {
    const chance = seeded(SEED + 1)
    for (let k = 0; k < 40; k++) {
      const raw = Array.from({ length: 4 }, () => 0.1 + chance())
      const total = raw.reduce((a, b) => a + b)
      const problem: Problem = {
        priors: raw.map(p => p / total), mends: raw.map((_, h) => ({ minutes: 2 + Math.floor(12 * chance()), atId: `s${h}`, isUp: h % 2 === 0, isOpened: h < 3 })),
        doables: Array.from({ length: 4 }, (_, t) => ({ test: { kind: 'sound', nodeId: `s${t}`, besideId: null } as TestAt, answers: raw.map(() => Math.floor(3 * chance())), isHead: t === 0, needsHead: t > 1 })),
        minutesFor: (test, { atId, isUp }) => 1 + Number(test.nodeId!.slice(1)) + (isUp ? 0 : 2) + (atId === test.nodeId ? 0 : 1),
        after: (test, { isUp }) => ({ atId: test.nodeId, isUp: !isUp, isOn: true, without: [] }),
      }
      const { minutes } = solved(problem, 0)
      expect([SEED + 1, k, minutes]).toEqual([SEED + 1, k, expect.closeTo(brute(problem, [0, 1, 2, 3], AT_THE_RACK), 9)])
      expect(problem.priors.reduce((sum, p, h) => sum + p * solved(problem, h).here.minutes, 0)).toBeCloseTo(minutes, 9)
    }
  })
  test('chances are those that faults are drawn by; too many, or two at once, are not worked out', () => {
    for (const level of [1, 2, 11, 13]) {
      const rig = rigOf({ level, seed: 1 })
      const all = hypothesesOf(rig)
      expect(all.reduce((sum, h) => sum + h.prior, 0)).toBeCloseTo(1, 12)
      const drawn = Array.from({ length: 300 }, (_, seed) => rigOf({ level, seed }).faults[0]!)
      for (const h of all) expect(Math.abs(drawn.filter(f => f.kind === h.kind && f.nodeId === h.nodeId).length / 300 - h.prior)).toBeLessThan(0.09)
    }
    expect([14, 15].map(level => bestPlay(rigOf({ level, seed: 1 })))).toEqual([null, null])
    expect(hypothesesOf(rigOf({ level: 9, seed: 1 })).length).toBeGreaterThan(MOST_EXACT)
  })
})

describe('looked back on', () => {
  const rig = hiding(7, faultAt('coil-open', 's3'))
  test('the chance of what is hidden rises with what tells, a place that was right is where the lead was lost', () => {
    const acts = [HEAD, on, at('walk'), off, nulled, at('coil-dcr', 's3'), name('open-at-drop', 's1'), name('coil-open', 's3')]
    const path = drained(pathOf(rig, acts))
    expect(path).toHaveLength(8)
    expect(path.map(p => p.atMin)).toEqual(path.map((_, k) => playOf(rig, acts.slice(0, k + 1)).steps.reduce((sum, s) => sum + s.minutes, 0)))
    expect([path[5]!.truth > 0.6, path[2]!.truth > 2 * path[0]!.truth, path[5]!.truth > 2 * path[2]!.truth, path[7]!.truth, lostAt(path)]).toEqual([true,
      true, true, 1, 6])
    expect([path[6]!.lostMin, path[0]!.lostMin]).toEqual([expect.closeTo(8, 3), 0])
    expect(path[0]!.told!.bits).toBeGreaterThan(0.2)
  })
  test('what was opened and is right is out of the question; what is left is likelier', () => {
    const path = drained(pathOf(rig, [HEAD, name('coil-open', 's1'), name('coil-open', 's2')]))
    const names = path.map(p => p.suspects.flatMap(s => s.faults.map(f => mendKey([f]))))
    expect([names[1]!.includes('unit s1'), names[2]!.includes('unit s1'), names[2]!.includes('unit s2')]).toEqual([false, false, false])
    expect([path[1]!.truth > path[0]!.truth, path[2]!.truth > path[1]!.truth]).toEqual([true, true])
  })
  test('a test that tells nothing is held against the best one, with what that would have saved', () => {
    const path = drained(pathOf(rig, [HEAD, at('leg-earth'), name('coil-open', 's3')]))
    expect([path[1]!.told!.bits < 0.05, path[1]!.better!.bits > 0.5, path[1]!.lostMin > 0]).toEqual([true, true, true])
    expect(pathSays(path[1]!, rig.output)).toMatch(/^It told next to nothing. “.+” would have told .+ saved\.$/)
  })
  test.each([[3, 'As few tests as can be.'], [2, 'you needed fewer tests'], [4, 'The tracer takes 12 minutes and 3 tests here.']])('where tests count: %i', (tests, says) =>
    expect(scoreSays({ minutes: 30, tests, ladders: 0, mistakes: 0, risks: 0, isFound: true, isNamed: true }, { by: 'tracer', minutes: 12, tests: 3, acts: [] }, 'tests')).toContain(says))
  test('nothing worth speaking of is no lost lead', () => expect([lostAt([]), lostAt([{ lostMin: 2.9 } as PathStep]), lostAt([{ lostMin: 1 }, { lostMin: 3 }] as PathStep[])]).toEqual([null, null, 1]))
  test.each<[string, object, Parameters<typeof scoreSays>[1], string]>([
    ['not found', { isFound: false }, { by: 'tracer', minutes: 12, tests: 3, acts: [] }, 'The tracer takes 12 minutes and 3 tests here.'],
    ['as quick', { minutes: 12.3 }, { by: 'tracer', minutes: 12, tests: 3, acts: [] }, '12 minutes and 4 tests. As quick as can be by the tracer.'],
    ['slower', { minutes: 20 }, { by: 'exact', best: { minutes: 10, here: { minutes: 9, tests: [] } } }, '20 minutes and 4 tests. The best possible play takes 9 minutes and no tests here.'],
    ['quicker than the best: luck on this rig', { minutes: 5 }, { by: 'exact', best: { minutes: 10, here: { minutes: 9, tests: [] } } }, 'you were quicker. On this rig; in the mean'],
    ['quicker than the tracer', { minutes: 5 }, { by: 'tracer', minutes: 12, tests: 1, acts: [] }, 'The tracer takes 12 minutes and 1 test here: you were quicker.'],
    ['found where the tracer does not find it', {}, { by: 'tracer', minutes: null, tests: 4, acts: [] }, '10 minutes and 4 tests. The tracer does not name it in 4 tests here: you were better.'],
    ['neither found it', { isFound: false }, { by: 'tracer', minutes: null, tests: 4, acts: [] }, 'The tracer does not name it in 4 tests here.'],
    ['named otherwise', { minutes: 5, isNamed: false }, { by: 'tracer', minutes: 12, tests: 1, acts: [] }, 'Put right, but named otherwise.'],
  ])('said: %s', (_, sum, best, says) => expect(scoreSays({ minutes: 10, tests: 4, ladders: 1, mistakes: 0, risks: 0, isFound: true, isNamed: true, ...sum }, best)).toContain(says))
})

describe('sound', () => {
  const spectrum = (samples: ArrayLike<number>) => {
    const fft = new FFT(samples.length)
    const out = fft.createComplexArray()
    fft.realTransform(out, samples as number[])
    return (k: number) => Math.hypot(out[2 * k]!, out[2 * k + 1]!)
  }
  const base = spectrum(programme())
  // Against a transform of another library than ours, at bands in which the programme has something.
  const bands = Array.from({ length: SAMPLES / 2 - 2 }, (_, k) => k + 1).filter(k => base(k) > 1)
  test.each<Heard>([
    { is: 'plays', levelDb: 0 }, { is: 'plays', levelDb: -6 }, { is: 'quiet', levelDb: -12 }, { is: 'thin', levelDb: 0 }, { is: 'hollow', levelDb: 0 }, { is: 'full', levelDb: -3 },
  ])('$is at $levelDb dB is the programme through its response', (heard) => {
    const is = spectrum(filtered(programme(), hz => gainAt(heard, hz)))
    expect(Math.max(...bands.map(k => Math.abs(is(k) / base(k) - gainAt(heard, k * RATE_HZ / SAMPLES))))).toBeLessThan(1e-6)
  })
  test('silent is silence; nothing is louder than the limit; thin and hollow lack bass; hum has its mains; what comes and goes is gone in between', () => {
    expect(samplesOf({ is: 'silent', levelDb: 0 }).every(s => s === 0)).toBe(true)
    for (const is of ['plays', 'scratchy', 'thin', 'quiet', 'hum', 'comes-and-goes', 'hollow', 'full'] as const) {
      const most = samplesOf({ is, levelDb: 6 }).reduce((m, s) => Math.max(m, Math.abs(s)), 0)
      expect([is, most > 0.01, most <= MOST_SAMPLE]).toEqual([is, true, true])
    }
    expect([gainAt({ is: 'thin', levelDb: 0 }, 100) < 0.05, gainAt({ is: 'thin', levelDb: 0 }, 6000) > 0.95, gainAt({ is: 'hollow', levelDb: 0 }, 60) < 0.2, gainAt({ is: 'full', levelDb: 0 }, 60) > 0.95]).toEqual([true, true, true, true])
    expect([gainAt({ is: 'plays', levelDb: -6 }, 500), gainAt({ is: 'plays', levelDb: -90 }, 500)]).toEqual([expect.closeTo(0.501, 3), 0.01])
    const hum = spectrum(Float64Array.from(samplesOf({ is: 'hum', levelDb: -40 })))
    expect(hum(Math.round(50 * SAMPLES / RATE_HZ))).toBeGreaterThan(20 * hum(Math.round(75 * SAMPLES / RATE_HZ)))
    const gone = samplesOf({ is: 'comes-and-goes', levelDb: 0 })
    expect([gone.slice(0.23 * SAMPLES, 0.29 * SAMPLES).every(s => s === 0), gone.slice(0, 0.2 * SAMPLES).some(s => s !== 0)]).toEqual([true, true])
  })
  test('level and kind are of what hangs there', () => {
    const silent = hiding(7, faultAt('open-at-drop', 's3'))
    const heard = (kind: 'sound' | 'beside' | 'polarity-heard', value: object) => heardIn(silent, { kind, nodeId: 's3', value: value as never })
    expect(heard('sound', { is: 'silent' })).toEqual([{ is: 'silent', levelDb: -Infinity }])
    expect(heard('beside', { is: 'quieter', besideId: 's2' })).toEqual([{ is: 'plays', levelDb: -Infinity }, { is: 'plays', levelDb: expect.closeTo(0, 0) }])
    expect(heard('polarity-heard', { is: 'reversed' })[0]!.is).toBe('hollow')
    expect(heardIn(silent, { kind: 'line-impedance', nodeId: null, value: { is: 'open' } })).toEqual([])
  })
})

describe('an exercise of somebody’s own, as a file', () => {
  const file: ExerciseFile = {
    format: 'plain-match-exercise', version: 1, name: 'Ours', before: 'One is silent.', after: 'Read first.', line: EXERCISES[6]!.line, hidden: [faultAt('coil-open', 's3')], faults: 1, kinds: ['coil-open', 'open-at-drop'], without: [],
    counts: 'minutes', seed: 4,
  }
  test('out and in again it is the same rig, with what was hidden; another is another', () => {
    const back = readExercise(JSON.stringify(file))
    expect([back, rigOfFile(back).faults, codeOfExercise(back)]).toEqual([file, file.hidden, codeOfExercise(file)])
    expect(codeOfExercise({ ...file, seed: 5 })).not.toBe(codeOfExercise(file))
    const drawn = { ...file, hidden: null, kinds: null }
    expect(rigOfFile(drawn).faults).toEqual(rigOfFile(readExercise(JSON.stringify(drawn))).faults)
  })
  test.each<[string, unknown, string]>([
    ['no JSON', '{', 'it is not JSON'], ['another format', { ...file, format: 'x' }, 'at “format”'], ['a field of nobody', { ...file, more: 1 }, 'at “the beginning”'],
    ['a place that is not there', { ...file, hidden: [faultAt('coil-open', 's9')] }, 'cannot have “coil-open” there'],
    ['one that is not told', { ...file, hidden: [faultAt('rubbing', 's1')] }, 'not among the kinds that are told'],
    ['one of two', { ...file, faults: 2 }, '2 are told to be hidden, and 1 are'],
    ['no speaker', { ...file, line: { ...file.line, wiring: { ...file.line.wiring, children: [] } } }, '0'],
  ])('refused: %s', (_, data, says) => expect(() => readExercise(typeof data === 'string' ? data : JSON.stringify(data))).toThrow(says))
  test('nothing that can be hidden is told', () => expect(() => checkExercise({ ...file, hidden: null, kinds: ['control-at-zero'] })).toThrow('nothing to hide'))
  test('a play that came back is played again here; one of a changed exercise is refused', () => {
    const play: PlayFile = { format: 'plain-match-play', version: 2, code: codeOfExercise(file), exercise: file, who: 'Mila', at: '2026-05-04T09:00:00Z', acts: [HEAD, name('coil-open', 's3')] }
    expect(readPlay(JSON.stringify(play), () => rigOf({ level: 1, seed: 1 })).sum).toEqual(sumOf(playOf(rigOfFile(file), play.acts)))
    expect(() => readPlay(JSON.stringify({ ...play, exercise: { ...file, seed: 9 } }), () => rigOf({ level: 1, seed: 1 }))).toThrow('it was changed')
    // What the version before wrote, as it stands there; and one that is newer than this.
    const before = JSON.stringify({ ...play, version: 1 })
    expect(readPlay(before, () => rigOf({ level: 1, seed: 1 }))).toMatchObject({ file: { acts: play.acts }, sum: { isFound: true } })
    expect(() => readPlay(JSON.stringify({ ...play, version: 3 }), () => rigOf({ level: 1, seed: 1 }))).toThrow('at “version”')
    const ofCode = { ...play, exercise: null, code: writeCode({ level: 7, seed: 1 }) }
    expect(readPlay(JSON.stringify(ofCode), () => rigOf({ level: 7, seed: 1 })).rig.code).toBe(ofCode.code)
  })
})
