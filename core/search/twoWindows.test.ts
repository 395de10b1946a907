import { beforeAll, expect, test } from '@jest/globals'
import highsLoader from 'highs'
import { unstatedModel } from '#core/gear/models'
import { moveEach, removeEach } from '#core/hands/many/many'
import { makeKind, removeKind } from '#core/hands/kinds'
import { addSpace, layOut, takeOff } from '#core/hands/spaces'
import { keepVariant, takeVariant } from '#core/hands/variants'
import { makeZone, removeZone } from '#core/hands/zones'
import { applyEdit } from '#core/job/apply'
import type { Edit, SimpleEdit } from '#core/job/edits'
import { EditRefused } from '#core/job/refusal'
import type { Job } from '#core/job/schema'
import { branchesOf, findOutput, findPlace, findSpeaker, outputsOf, speakersOf } from '#core/job/tree'
import { evaluateJob } from '#core/line/evaluate'
import { cabled, counter, jobOf } from '#core/testing/jobs'
import { cableSearch, layCable } from './cableSearch'
import { findAmplifiers } from './plan/amplifierFinder'
import { applySet } from './plan/amplifiersEdit'
import { solverOf, type SolveLp } from './plan/lp'
import { splitEdit, splitLine } from './plan/splitLine'
import { findWirings } from './wirings/finder'
import { rewire, unitsOf } from './wirings/rewire'

/** What a search puts in is many edits at once. What another window changed meanwhile is not lost under them: it stands afterwards, or they are refused. */

let solve: SolveLp
beforeAll(async () => { solve = solverOf(await highsLoader()) })

const taps = cabled(jobOf('20 W + 20 W + 20 W + 20 W on 70 V 60 W', '40 W on 70 V 60 W'), { cable: { awg: 16 }, lengthM: 20 })
const ohms = cabled(jobOf('8 || 8 || 8 || 8 on 300 W at 2'), { cable: { awg: 16 }, lengthM: 5 })
const changed = (job: Job, edit: Edit | null) => edit ? applyEdit(job, edit).job : job

/** Each with the job that it was made for. */
const COMPOSITES: Record<string, () => Promise<[Job, Edit | null]>> = {
  'another variant': async () => {
    const kept = changed(taps, keepVariant(taps, 'before', '2026-01-01T00:00:00Z', counter('v')))
    const [first, second] = outputsOf(kept)
    const now = changed(kept, moveEach(kept, [speakersOf(first!.wiring)[0]!.id], { outputId: second!.id }).edit)
    return [now, takeVariant(now, now.variants[0]!.id)]
  },
  'a set of amplifiers': async () => {
    const model = { ...unstatedModel('amplifier', 'Four'), price: 500, outputs: [{ count: 4, points: [], lines: [{ lineV: 70.71, powerW: 240 }], floorOhm: null, valve: null }] }
    const found = await findAmplifiers(taps, [model], solve)
    return [taps, applySet(taps, found.sets[0]!, [{ model, from: null }], counter('n')).edit]
  },
  'a split': async () => {
    const [line] = evaluateJob(taps)
    const split = await splitLine(taps, line!, 2, solve)
    return [taps, typeof split === 'string' ? null : splitEdit(taps, line!, split, counter('s'))!.edit]
  },
  'the thinnest cable': async () => {
    const [output] = outputsOf(taps)
    return [taps, layCable(output!, cableSearch(output!, 0.5, [{ awg: 12 }, { awg: 18 }])!.single!)]
  },
  'a wiring': async () => {
    const [line] = evaluateJob(ohms)
    const units = unitsOf(line!)
    if (typeof units === 'string') return [ohms, null]
    const found = findWirings({ units, rating: line!.output.rating, isFair: false })
    const wiring = typeof found === 'string' ? null : found.wirings.find(w => Math.abs(w.loadOhm - 8) < 0.1)
    const wired = wiring && rewire(ohms, 'out1', units, wiring.network, { channels: 1 }, counter('w'))
    return [ohms, wired && typeof wired !== 'string' ? wired.edit : null]
  },
  'a zone given up': async () => {
    const zoned = changed(taps, makeZone(taps, [speakersOf(outputsOf(taps)[0]!.wiring)[0]!.id], 'bar', counter('z')))
    return [zoned, removeZone(zoned, zoned.zones[0]!.id)]
  },
  'a kind given up': async () => {
    const kinded = changed(taps, makeKind(taps, [speakersOf(outputsOf(taps)[0]!.wiring)[0]!.id], 'bar', counter('k'))!.edit)
    return [kinded, removeKind(kinded, kinded.kinds[0]!.id)]
  },
  'places of a space taken off': async () => {
    const spaced = changed(taps, addSpace(taps, counter('r')).edit)
    const placed = changed(spaced, layOut(spaced, spaced.spaces[0]!, [{ xM: 1, yM: 1 }, { xM: 2, yM: 2 }], counter('p')))
    return [placed, takeOff(placed, placed.spaces[0]!, [placed.spaces[0]!.spots[0]!.id])]
  },
  'several taken off': async () => [taps, removeEach(taps, speakersOf(outputsOf(taps)[0]!.wiring).slice(0, 2).map(s => s.id)).edit],
}

/** What somebody else may do to each part of a job meanwhile, and whether it still stands. */
function othersOf(job: Job): [SimpleEdit, (after: Job) => boolean][] {
  const output = outputsOf(job)
  return [
    ...job.amplifiers.map((a): [SimpleEdit, (after: Job) => boolean] =>
      [{ kind: 'amplifier.set', amplifierId: a.id, was: { place: a.place }, to: { place: 'cellar' } }, after => after.amplifiers.some(x => x.id === a.id && x.place === 'cellar')]),
    ...output.map((o): [SimpleEdit, (after: Job) => boolean] =>
      [{ kind: 'output.set', outputId: o.id, was: { limiterV: null }, to: { limiterV: 20 } }, after => findOutput(after, o.id)?.output.limiterV === 20]),
    ...output.flatMap(o => speakersOf(o.wiring)).map((s): [SimpleEdit, (after: Job) => boolean] =>
      [{ kind: 'speaker.set', nodeId: s.id, was: { name: s.name }, to: { name: 'over the bar' } }, after => findSpeaker(after, s.id)?.speaker.name === 'over the bar']),
    ...job.zones.map((z): [SimpleEdit, (after: Job) => boolean] =>
      [{ kind: 'zone.set', zoneId: z.id, was: { name: z.name }, to: { name: 'foyer' } }, after => after.zones.some(x => x.name === 'foyer')]),
    ...job.kinds.map((k): [SimpleEdit, (after: Job) => boolean] =>
      [{ kind: 'kind.set', kindId: k.id, was: { from: k.from }, to: { from: { modelId: 'm', version: 1, passed: null } } }, after => after.kinds.some(x => x.from?.modelId === 'm')]),
    ...job.spaces.flatMap(s => s.spots.map((p): [SimpleEdit, (after: Job) => boolean] =>
      [{ kind: 'spot.set', spaceId: s.id, spotId: p.id, was: { heightM: p.heightM }, to: { heightM: 3.3 } }, after => after.spaces[0]!.spots.some(x => x.id === p.id && x.heightM === 3.3)])),
    ...output.flatMap(o => branchesOf(o.wiring)).map((b): [SimpleEdit, (after: Job) => boolean] =>
      [{ kind: 'lead.set', nodeId: b.node.id, was: b.lead, to: { cable: { awg: 10 }, lengthM: 33 } }, after => findPlace(after, b.node.id)?.branch.lead?.lengthM === 33]),
  ]
}

test.each(Object.keys(COMPOSITES))('%s', async (name) => {
  const [job, edit] = await COMPOSITES[name]!()
  expect(edit).not.toBeNull()
  let [stood, refused] = [0, 0]
  for (const [other, stands] of othersOf(job)) {
    const meanwhile = applyEdit(job, other).job
    try {
      const after = applyEdit(meanwhile, edit!).job
      expect([name, other, stands(after)]).toEqual([name, other, true])
      stood++
    }
    catch (error) {
      if (!(error instanceof EditRefused)) throw error
      expect(error.refusal.code).toBe('changed-meanwhile')
      refused++
    }
  }
  // Some of it was in its way, and some was not.
  expect([stood > 0, refused > 0]).toEqual([name !== 'another variant', true])
})
