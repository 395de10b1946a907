import { expect, test } from '@jest/globals'
import { unstatedModel } from '#core/gear/models'
import type { SpeakerModel } from '#core/gear/speaker'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import type { Job } from '#core/job/schema'
import { plainSpace } from '#core/job/sections/spaces/schema'
import { giveSpace } from '#core/hands/spaceSpeakers'
import { hangSpace, layOut, spaceById } from '#core/hands/spaces'
import { outputsOf } from '#core/job/tree'
import { counter, jobOf } from '#core/testing/jobs'
import { SEED } from '#core/testing/runs'
import { seeded } from '#core/quantity/seeded'
import { makeEvaluator } from '#core/line/evaluate'
import { dropsById, spaceFacts } from '#core/advice/spaces'
import { otherModels } from './otherModels'

const model = (name: string, over: Partial<SpeakerModel> = {}): SpeakerModel => ({
  ...unstatedModel('speaker', name), build: 'ceiling-can', nominalOhm: 8, sensitivityDb: 89, sensitivityAt: '1 W', coverageDeg: 90,
  scales: [{ lineV: 70.71, tapsW: [1.25, 2.5, 5, 10] }], insertionDb: 1, tapMeans: 'line-gives', ...over,
})
const done = (job: Job, edit: Edit | null) => edit ? applyEdit(job, edit).job : job
const PLACES = [{ xM: 2, yM: 3 }, { xM: 4, yM: 3 }, { xM: 6, yM: 3 }]
const hall = (job: Job) => spaceById(job, 'hall')!
const evaluated = (job: Job) => makeEvaluator()(job).lines

/** A hall of three, hung on a line of so many watts, all on one tap. */
function hung(noiseDb: number, tapW: number, amplifierW = 240): Job {
  const job = done(jobOf(`1 x 10 W on 70 V ${amplifierW} W`), { kind: 'kind.add', index: 0, item: { what: 'speaker', id: 'k', from: null, model: model('Here') } })
  const made = done(job, { kind: 'space.add', index: 0, space: { ...plainSpace('hall', 'Hall'), kindId: 'k', rackM: 20, noiseDb, peaks: 'none' } })
  const laid = done(made, layOut(made, hall(made), PLACES, counter('spot')))
  const answer = hangSpace(laid, hall(laid), { outputId: outputsOf(laid)[0]!.id }, { tapW, cable: { awg: 18 }, newId: counter('n') })
  if (typeof answer === 'string') throw new Error(answer)
  return done(laid, answer.edit)
}
function asked(job: Job, models: readonly SpeakerModel[]) {
  const lines = evaluated(job)
  const facts = spaceFacts(job, dropsById(lines), hall(job))
  return { facts, offers: otherModels(job, lines, hall(job), facts, models.map((m, k) => ({ modelId: `m${k}`, version: 1, model: m })), counter('o')) }
}
const names = (job: Job, models: readonly SpeakerModel[]) => asked(job, models).offers.map(o => `${o.offered.model.name} ${o.tapW}`)

/** What the hall comes to on its lowest tap, over a target of so much noise. */
const overOn = (tapW: number) => (target => target.level!.meanDb - target.targetDb!)(asked(hung(40, tapW), []).facts)
const lowestOver = overOn(1.25)

test.each<[string, () => string[], string[]]>([
  ['far over: the quieter one, on the lowest tap that reaches', () => names(hung(40, 1.25), [model('As loud'), model('Quieter', { sensitivityDb: 89 - lowestOver + 1 })]), ['Quieter 1.25']],
  ['a lower tap does it too', () => names(hung(40, 1.25), [model('Low tap', { scales: [{ lineV: 70.71, tapsW: [1.25 * 10 ** ((1 - lowestOver) / 10), 5] }] })]), [expect.stringContaining('Low tap')] as unknown as string[]],
  ['nearest over the target first', () => names(hung(40, 1.25), [model('4 over', { sensitivityDb: 89 - lowestOver + 4 }), model('1 over', { sensitivityDb: 89 - lowestOver + 1 })]), ['1 over 1.25', '4 over 1.25']],
  ['by its sheet near, put in far over: it throws wider', () => names(hung(40, 1.25), [model('Wide', { sensitivityDb: 89 - lowestOver + 5.9, coverageDeg: 180 })]), []],
  ['the taps of the scale that is for this line', () => names(hung(40, 1.25), [model('Two scales', {
    sensitivityDb: 89 - lowestOver + 1, scales: [{ lineV: 100, tapsW: [2.5] }, { lineV: 70.71, tapsW: [1.25] }],
  })]), ['Two scales 1.25']],
  ['short: the louder one', () => names(hung(80, 10), [model('Louder', { sensitivityDb: 89 - (overOn(10) - 40) + 1 })]), ['Louder 10']],
  ['one that stays under is none', () => names(hung(40, 1.25), [model('Too quiet', { sensitivityDb: 40, scales: [{ lineV: 70.71, tapsW: [1.25] }] })]), []],
  ['built otherwise it is none', () => names(hung(40, 1.25), [model('Horn', { build: 'horn', sensitivityDb: 89 - lowestOver + 1 })]), []],
  ['of one that states no angle nothing is known', () => names(hung(40, 1.25), [model('Unstated', { coverageDeg: null, sensitivityDb: 89 - lowestOver + 1 })]), []],
  ['without a transformer it cannot hang here', () => names(hung(40, 1.25), [model('Plain', { scales: [], sensitivityDb: 89 - lowestOver + 1 })]), []],
  ['the same one is no other', () => names(hung(40, 1.25), [model('Here', { sensitivityDb: 89 - lowestOver + 1 })]), []],
  ['no more than three', () => names(hung(40, 1.25), [1, 2, 3, 4, 5].map(k => model(`${k} over`, { sensitivityDb: 89 - lowestOver + k }))), ['1 over 1.25', '2 over 1.25', '3 over 1.25']],
  ['one that would overload the amplifier is none', () => names(hung(80, 10), [model('Hungry', { sensitivityDb: 89 - (overOn(10) - 40) - 9, scales: [{ lineV: 70.71, tapsW: [100] }] })]), []],
])('%s', (_, found, expected) => expect(found()).toEqual(expected))

test('a space that takes another speaker is on its lowest tap again: the one before may not be there', () => {
  const job = hung(40, 5)
  const planned = { ...job, spaces: [{ ...hall(job), tapW: 5 }] }
  const edit = giveSpace(planned, hall(planned), { modelId: 'm', version: 1, model: model('Other', { scales: [{ lineV: 70.71, tapsW: [3, 6] }] }) }, () => 70.71, counter('g'))
  const after = done(planned, edit)
  expect([hall(after).tapW, after.kinds.find(k => k.id === hall(after).kindId)?.model.name]).toEqual([null, 'Other'])
})

test('nothing is offered where the taps differ or the level is not known', () => {
  const quieter = model('Quieter', { sensitivityDb: 89 - lowestOver + 1 })
  expect(asked({ ...hung(40, 1.25), spaces: [{ ...hall(hung(40, 1.25)), noiseDb: null }] }, [quieter]).offers).toEqual([])
})

test(`whatever is offered, put in, comes to what was said (seed ${SEED})`, () => {
  const chance = seeded(SEED)
  let offered = 0
  for (let k = 0; k < 16; k++) {
    const isOver = chance() < 0.5
    const job = hung(isOver ? 30 + 20 * chance() : 70 + 15 * chance(), isOver ? 1.25 : 10, 60 + 400 * chance())
    const library = Array.from({ length: 12 }, (_, m) => model(`M${m}`, {
      sensitivityDb: 70 + 40 * chance(), coverageDeg: 60 + 120 * chance(),
      scales: [{ lineV: chance() < 0.7 ? 70.71 : 100, tapsW: [0.25, 1, 4, 16, 32].slice(Math.floor(3 * chance())) }],
    }))
    for (const offer of asked(job, library).offers) {
      const after = done(job, offer.edit)
      const facts = spaceFacts(after, dropsById(evaluated(after)), hall(after))
      expect([facts.level!.meanDb, facts.kind?.model.name, facts.taps?.nowW]).toEqual([expect.closeTo(offer.meanDb, 9), offer.offered.model.name, offer.tapW])
      expect(facts.level!.meanDb - facts.targetDb!).toBeGreaterThanOrEqual(-0.5)
      expect(facts.level!.meanDb - facts.targetDb!).toBeCloseTo(offer.overDb, 9)
      offered++
    }
  }
  expect(offered).toBeGreaterThan(8)
})
