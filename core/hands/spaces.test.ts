import { describe, expect, test } from '@jest/globals'
import { unstatedModel } from '#core/gear/models'
import { counter, jobOf } from '#core/testing/jobs'
import { seeded } from '#core/testing/trees'
import { alongWallsM } from '#core/room/walls'
import { applyEdit } from '#core/job/apply'
import { partsOf, type Edit } from '#core/job/edits'
import { addAmplifier } from './intents'
import { readJob } from '#core/job/readJob'
import { toDocument } from '#core/job/document'
import type { Job, Space } from '#core/job/schema'
import { plainSpace } from '#core/job/sections/spaces/schema'
import {
  addSpace, addSpot, hangSpace, layOut, leadsAgain, middleOf, NOT_HUNG_WORDS, nudge, setSpace, setSpots, spaceById, speakerAt, spotOf, takeOff,
  type HangTo, type NotHung,
} from './spaces'
import { findOutput, outputsOf, speakersOf } from '#core/job/tree'

const cable = { awg: 16 }
const model = { ...unstatedModel('speaker', 'Ceiling 165, 30 W'), nominalOhm: 8, continuousW: 40, scales: [{ lineV: 70.71, tapsW: [5, 10, 20, 30] }], insertionDb: 1, tapMeans: 'line-gives' as const }
const done = (job: Job, edit: Edit | null) => edit ? applyEdit(job, edit).job : job
const grid = [[1, 1], [4, 1], [7, 1], [7, 4], [4, 4], [1, 4]].map(([xM, yM]) => ({ xM: xM!, yM: yM! }))
/** A line of 70 V with one speaker, a kind, and a space of 8 by 6 laid out with six places. */
function house(): { job: Job, space: () => Space } {
  const base = jobOf('1 x 10 W on 70 V 240 W')
  const kinded = done(base, { kind: 'kind.add', index: 0, item: { what: 'speaker', id: 'k', from: null, model } })
  const made = done(kinded, { kind: 'space.add', index: 0, space: { ...plainSpace('hall', 'Hall'), kindId: 'k', rackM: 20 } })
  const job = done(made, layOut(made, spaceById(made, 'hall')!, grid, counter('spot')))
  return { job, space: () => spaceById(job, 'hall')! }
}
const hung = ({ job, space }: ReturnType<typeof house>, to: HangTo = { outputId: outputsOf(job)[0]!.id }) => {
  const answer = hangSpace(job, space(), to, { tapW: 10, cable, newId: counter('n') })
  if (typeof answer === 'string') throw new Error(answer)
  return { job: done(job, answer.edit), outputId: answer.outputId, edit: answer.edit }
}

test('a space hangs on a line behind what is there: in walking order, along the walls with slack, the rack to the first included; every place has its speaker', () => {
  const { job, outputId } = hung(house())
  const { wiring } = findOutput(job, outputId)!.output
  const space = spaceById(job, 'hall')!
  expect(wiring.children.map(b => [b.node.kind === 'speaker' && b.node.label, b.lead?.lengthM ?? null])).toEqual([['01', null], ['02', 24.2], ['03', 3.3], ['04', 3.3], ['05', 3.3], ['06', 3.3], ['07', 3.3]])
  const speakers = speakersOf(wiring).slice(1)
  expect(speakers.every(s => s.kindId === 'k' && s.load.kind === 'tap' && s.load.tapW === 10 && s.load.insertionDb === 1 && s.driverOhm === 8 && s.name === model.name)).toBe(true)
  expect(speakers.map(s => spotOf(job, s.id)!.spot).reduce((sum, spot, k, all) => sum + (k === 0 ? 0 : alongWallsM(all[k - 1]!, spot)), 0)).toBe(15)
  expect(space.spots.every(s => speakerAt(job, s)?.output.id === outputId)).toBe(true)
  // Once more there is nothing to hang; one that is added goes on from where the line ends.
  expect(hangSpace(job, space, { outputId }, { tapW: null, cable, newId: counter('m') })).toBe('all-hang')
  const more = done(job, addSpot(space, { xM: 1, yM: 5 }, counter('p'))!.edit)
  const again = hangSpace(more, spaceById(more, 'hall')!, { outputId }, { tapW: 10, cable, newId: counter('m') }) as { edit: Edit }
  expect(findOutput(done(more, again.edit), outputId)!.output.wiring.children.at(-1)!.lead!.lengthM).toBe(1.1)
  readJob(toDocument(job))
})

test('to an output more on its amplifier, rated like it and named after the space; low impedance takes it past its transformer', () => {
  const { job } = house()
  const { job: after, outputId } = hung(house(), { amplifierId: job.amplifiers[0]!.id })
  const { output } = findOutput(after, outputId)!
  expect([output.name, output.rating, speakersOf(output.wiring).length]).toEqual(['Hall', outputsOf(job)[0]!.rating, 6])
  const low = house()
  const [rated] = outputsOf(low.job)
  const plain = done(low.job, { kind: 'output.set', outputId: rated!.id, was: { rating: rated!.rating }, to: { rating: { kind: 'solid-state', points: [{ loadOhm: 8, powerW: 100 }], floorOhm: 4, mode: 'single', bridgedFloorOhm: null } } })
  const answer = hangSpace(plain, spaceById(plain, 'hall')!, { outputId: rated!.id }, { tapW: 10, cable, newId: counter('n') }) as { edit: Edit }
  expect(speakersOf(outputsOf(done(plain, answer.edit))[0]!.wiring).at(-1)!.load).toEqual({ kind: 'nominal', nominalOhm: 8 })
})

test('to a new line of which only the volts are known: an amplifier of such lines takes all of them', () => {
  const { job, outputId } = hung(house(), { lineV: 100 })
  const second = done(job, { kind: 'space.add', index: 1, space: { ...plainSpace('yard', 'Yard'), kindId: 'k', spots: [{ id: 'y1', xM: 1, yM: 1, heightM: null, aim: null, nodeId: null }] } })
  const more = hangSpace(second, spaceById(second, 'yard')!, { lineV: 100 }, { tapW: null, cable, newId: counter('w') }) as { edit: Edit }
  const after = done(second, more.edit)
  expect(after.amplifiers.map(a => [a.name, a.outputs.map(o => [o.label, o.name, o.rating])])).toEqual([
    [job.amplifiers[0]!.name, [['A1', '', outputsOf(job)[0]!.rating]]], ['Amplifier B', [['B1', 'Hall', { kind: 'constant-voltage', lineV: 100, powerW: null }], ['B2', 'Yard', { kind: 'constant-voltage', lineV: 100, powerW: null }]]],
  ])
  expect(findOutput(after, outputId)!.output.wiring.children.length).toBe(6)
})

test.each<[NotHung, (job: Job) => Job, HangTo | null]>([
  ['no-kind', job => done(job, setSpace(spaceById(job, 'hall')!, { kindId: null })), null], ['no-line', job => job, { outputId: 'none' }],
  ['no-line', job => done(job, addAmplifier(job, counter('a')).edit), { outputId: 'a2' }],
  ['no-transformer', job => done(job, { kind: 'kind.set', kindId: 'k', was: { model }, to: { model: { ...model, scales: [] } } }), null],
  ['all-hang', job => done(job, takeOff(job, spaceById(job, 'hall')!, spaceById(job, 'hall')!.spots.map(s => s.id))), null],
])('not hung: %s', (why, change, to) => {
  const job = change(house().job)
  expect(hangSpace(job, spaceById(job, 'hall')!, to ?? { outputId: outputsOf(job)[0]!.id }, { tapW: null, cable, newId: counter('n') })).toBe(why)
  expect(NOT_HUNG_WORDS[why].length).toBeGreaterThan(10)
})
test('a lead of no length known is none', () => {
  const { job, space } = house()
  const far = done(job, setSpace(space(), { rackM: null }))
  const { edit } = hangSpace(far, spaceById(far, 'hall')!, { outputId: outputsOf(far)[0]!.id }, { tapW: null, cable, newId: counter('n') }) as { edit: Edit }
  const [, first, second] = outputsOf(done(far, edit))[0]!.wiring.children
  expect([first!.lead, second!.lead?.lengthM, first!.node.kind === 'speaker' && first!.node.load.kind === 'tap' && first!.node.load.tapW]).toEqual([null, 3.3, 5])
})

describe('what is done in one place shows in the other', () => {
  const { job, outputId } = hung(house())
  const space = spaceById(job, 'hall')!
  test('a place taken off takes its speaker off the line, and both come back with one undo', () => {
    const edit = takeOff(job, space, [space.spots[1]!.id])!
    const { job: after, inverse } = applyEdit(job, edit)
    expect([spaceById(after, 'hall')!.spots.length, speakersOf(findOutput(after, outputId)!.output.wiring).length]).toEqual([5, 6])
    expect(toDocument(applyEdit(after, inverse).job)).toEqual(toDocument(job))
  })
  test('a speaker taken off the line leaves its place free; brought back it hangs there again', () => {
    const { nodeId } = space.spots[0]!
    const { job: after, inverse } = applyEdit(job, { kind: 'node.remove', nodeId: nodeId!, was: null })
    expect(speakerAt(after, spaceById(after, 'hall')!.spots[0]!)).toBeNull()
    expect(speakerAt(applyEdit(after, inverse).job, space.spots[0]!)?.speaker.id).toBe(nodeId)
  })
  test('laid out closer, nobody loses a speaker: each place moves to the nearest; laid out wider, the farthest go, speakers too', () => {
    const closer = done(job, layOut(job, space, [...grid, { xM: 2.5, yM: 2.5 }, { xM: 5.5, yM: 2.5 }], counter('more')))
    expect([spaceById(closer, 'hall')!.spots.length, spaceById(closer, 'hall')!.spots.filter(s => speakerAt(closer, s)).length]).toEqual([8, 6])
    const wider = done(job, layOut(job, space, [{ xM: 4, yM: 2 }, { xM: 4, yM: 4 }], counter('less')))
    expect([spaceById(wider, 'hall')!.spots.map(s => [s.xM, s.yM]).toSorted(), speakersOf(findOutput(wider, outputId)!.output.wiring).length]).toEqual([[[4, 2], [4, 4]], 3])
    expect(layOut(job, space, space.spots, counter('same'))).toBeNull()
  })
  test('lengths again after a move: of those that moved and of the next; the first stays where the line comes from elsewhere', () => {
    const [, second] = speakersOf(findOutput(job, outputId)!.output.wiring).slice(1)
    const moved = done(job, nudge(space, [spotOf(job, second!.id)!.spot.id], { xM: 0, yM: 1 }))
    const leads = leadsAgain(moved, spaceById(moved, 'hall')!, cable)!
    expect(partsOf(leads).map(e => e.kind === 'lead.set' && e.to?.lengthM)).toEqual([4.4, 4.4])
    expect(leadsAgain(job, space, cable)).toBeNull()
  })
})

test('moving stays on the floor; heights and aims are set; what does not change is no edit', () => {
  const { space } = house()
  const ids = space().spots.map(s => s.id)
  expect(partsOf(nudge(space(), ids, { xM: 0, yM: 2.5 })!).length).toBe(3)
  expect(nudge(space(), ids.slice(0, 1), { xM: -5, yM: 0 })).toBeNull()
  expect(addSpot(space(), { xM: 9, yM: 1 }, counter('p'))).toBeNull()
  expect(setSpots(space(), ids, { heightM: null })).toBeNull()
  expect(partsOf(setSpots(space(), ids.slice(0, 2), { heightM: 4, aim: { turnDeg: 90, tiltDeg: 20 } })!).length).toBe(2)
  expect(setSpace(space(), { name: 'Hall' })).toBeNull()
  expect(setSpace(space(), { name: 'Nave', heightM: 3 })).toEqual({ kind: 'space.set', spaceId: 'hall', was: { name: 'Hall' }, to: { name: 'Nave' } })
})
test('a new space takes the storey, use, height and speaker of the last, not its noise, and a free name; something new is put on the floor', () => {
  const { job, space } = house()
  const storeyed = done(job, setSpace(space(), { floor: 'Ground', name: 'Space 1', use: 'speech', heightM: 4.5, noiseDb: 61, rackM: 9 }))
  const { edit, spaceId } = addSpace(storeyed, counter('s'))
  const { name, floor, use, heightM, noiseDb, rackM, kindId, spots } = spaceById(done(storeyed, edit), spaceId)!
  expect([name, floor, use, heightM, noiseDb, rackM, kindId === space().kindId, spots]).toEqual(['Space 2', 'Ground', 'speech', 4.5, null, null, true, []])
  const bent = [[0, 0], [10, 0], [10, 2], [2, 2], [2, 10], [0, 10]].map(([xM, yM]) => ({ xM: xM!, yM: yM! }))
  expect([middleOf(space()), middleOf({ outline: bent })]).toEqual([{ xM: 4, yM: 3 }, { xM: 6.667, yM: 0.667 }])
})

describe('edits of spaces', () => {
  const { job } = hung(house())
  const space = spaceById(job, 'hall')!
  const [spot, other] = space.spots
  const measured = { id: 'm1', xM: 2, yM: 2, db: 71.5, at: '2026-05-04T09:30:00Z', note: '' }
  test.each<[string, Edit, string]>([
    ['a speaker at two places', { kind: 'spot.set', spaceId: 'hall', spotId: spot!.id, was: { nodeId: spot!.nodeId }, to: { nodeId: other!.nodeId } }, 'not-valid'],
    ['a place that is gone', { kind: 'spot.remove', spaceId: 'hall', spotId: 'no', was: null }, 'not-there'],
    ['a space that is gone', { kind: 'space.remove', spaceId: 'no', was: null }, 'not-there'],
    ['a measured level that is gone', { kind: 'measured.remove', spaceId: 'hall', measuredId: 'no', was: null }, 'not-there'],
    ['changed meanwhile', { kind: 'space.set', spaceId: 'hall', was: { name: 'Nave' }, to: { name: 'Choir' } }, 'changed-meanwhile'],
    ['an id twice', { kind: 'spot.add', spaceId: 'hall', index: 0, spot: { ...spot!, nodeId: null } }, 'already-there'], ['an id of a place for a zone', { kind: 'zone.add', index: 0, zone: { id: spot!.id, name: 'z' } }, 'already-there'],
    ['a space whose places hang elsewhere', { kind: 'space.add', index: 0, space: { ...space, id: 'x', spots: [{ ...spot!, id: 'y' }] } }, 'not-valid'],
  ])('refused: %s', (_, edit, code) => expect(() => applyEdit(job, edit)).toThrow(expect.objectContaining({ refusal: expect.objectContaining({ code }) as unknown as object })))
  test.each<[string, Edit]>([
    ['a space removed', { kind: 'space.remove', spaceId: 'hall', was: null }],
    ['a place set', { kind: 'spot.set', spaceId: 'hall', spotId: spot!.id, was: { xM: spot!.xM }, to: { xM: 5 } }],
    ['a place removed', { kind: 'spot.remove', spaceId: 'hall', spotId: spot!.id, was: null }],
    ['a level noted', { kind: 'measured.add', spaceId: 'hall', index: 0, measured }], ['a space set', { kind: 'space.set', spaceId: 'hall', was: { noiseDb: null }, to: { noiseDb: 60 } }],
  ])('undone: %s', (_, edit) => {
    const { job: after, inverse } = applyEdit(job, edit)
    expect(toDocument(after)).not.toEqual(toDocument(job))
    const back = applyEdit(after, inverse)
    expect(toDocument(back.job)).toEqual(toDocument(job))
    expect(toDocument(applyEdit(back.job, back.inverse).job)).toEqual(toDocument(after))
  })
  test('any hand of layouts, moves and takings off leaves a job that can be kept, and undoes to where it was', () => {
    const chance = seeded(3)
    const newId = counter('h')
    for (let n = 0; n < 120; n++) {
      let now = job
      const back: Edit[] = []
      for (let k = 0; k < 8; k++) {
        const at = spaceById(now, 'hall')!
        const some = at.spots.filter(() => chance() < 0.4).map(s => s.id)
        const places = Array.from({ length: Math.floor(9 * chance()) }, () => ({ xM: 8 * chance(), yM: 6 * chance() }))
        const answer = hangSpace(now, at, { outputId }, { tapW: 10, cable, newId })
        const edit = [
          layOut(now, at, places, newId), takeOff(now, at, some), nudge(at, some, { xM: chance() - 0.5, yM: chance() - 0.5 }),
          typeof answer === 'string' ? null : answer.edit, leadsAgain(now, at, cable),
        ][Math.floor(5 * chance())]!
        if (!edit) continue
        const result = applyEdit(now, edit)
        now = result.job
        back.unshift(result.inverse)
      }
      readJob(toDocument(now))
      expect(toDocument(back.reduce((j, e) => applyEdit(j, e).job, now))).toEqual(toDocument(job))
    }
  })
  const { outputId } = hung(house())
})
