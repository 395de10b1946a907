import { expect, test } from '@jest/globals'
import { applyEdit } from './apply'
import type { Edit } from './edits'
import { EditRefused, WHOLE } from './refusal'
import { placeWords } from './placeWords'
import { editWords, refusalWords } from './words'
import { jobOf } from '#core/testing/jobs'
import { UNSTATED_AMPLIFIER } from '#core/job/sections/wiring/schema'

const changed = (was: unknown, now: unknown, field = 'rating') => refusalWords({ code: 'changed-meanwhile', what: 'A1', field, was, now } as never)

test.each<[unknown, string]>([
  [null, 'not stated'], [undefined, 'not stated'], ['', 'not stated'], ['Hall', '“Hall”'], [7, '“7”'], [{ kind: 'tap', tapW: 0 }, 'off'], [{ kind: 'tap', tapW: 5 }, '5 W'], [{ kind: 'nominal', nominalOhm: 8 }, '8 Ω'],
  [{ cable: { awg: 16 }, lengthM: 6 }, '6 m of 16 AWG'], [{ lineV: 70, powerW: null }, '70 V'], [{ lineV: 70, powerW: 240 }, '240 W at 70 V'],
  [{ points: [{ loadOhm: 4, powerW: 200 }, { loadOhm: 8, powerW: 120 }] }, '200 W at 4 Ω, 120 W at 8 Ω'], [{ kind: 'not-known' }, 'something else'], [{ kind: 'control', lineV: 70.71, ratingW: 35 }, 'something else'],
])('%j is said as %s', (value, says) => {
  expect(changed(value, 'x')).toBe(`The rating of A1 was changed in another window: it was ${says}, it is now “x”.`)
  expect(changed('x', value, 'load')).toBe(`The tap or impedance of A1 was changed in another window: it was “x”, it is now ${says}.`)
})

test.each<[unknown, unknown, string]>([
  [{ name: 'a' }, { name: 'b' }, 'its name became “b”'],
  [{ name: 'a', spots: [] }, { name: 'a', spots: [1] }, 'its places were changed'],
  [{ outline: [] }, { outline: [1] }, 'its floor was changed'],
  [{ amplifiers: [] }, { amplifiers: [1] }, 'what hangs on it was changed'],
  [{ lead: null, node: { name: 'a' } }, { lead: 1, node: { name: 'b' } }, 'its name became “b”'],
])('a thing to be taken away that became another: %j %j', (was, now, says) => {
  expect(changed(was, now, WHOLE)).toBe(`A1 is no longer as it was: ${says} in another window. Look at it before it goes.`)
})

test('why an edit was not taken', () => {
  expect([refusalWords({ code: 'id-taken' } as never), refusalWords({ code: 'archived' } as never), refusalWords({ code: 'not-valid', message: 'So.' } as never), refusalWords({ code: 'too-many', what: 'repairs', most: 3 } as never)]).toEqual([
    'Another change was kept under the same number; this one was not taken. Do it once more.', 'This job is archived. Bring it back first; then it takes changes again.', 'So.', 'There are 3 repairs already, as many as a job can hold.',
  ])
})

test('what an edit did, in short: of several the one that leads', () => {
  const batch = (...kinds: string[]): Edit => ({ kind: 'batch', edits: kinds.map(kind => ({ kind })) }) as never
  expect(([batch('lead.set', 'node.move'), batch('node.move', 'lead.set', 'node.add'), batch('node.add', 'node.remove'), batch('speaker.set', 'lead.set'), batch('output.set', 'output.set'), batch('lead.set', 'node.move', 'node.move'), batch('output.set', 'amplifier.set'), { kind: 'repair.add' }, batch('kind.add', 'speaker.set', 'speaker.set'), batch('speaker.set', 'kind.set'), batch('speaker.set', 'kind.remove'), batch('amplifier.add', 'output.move', 'output.move', 'amplifier.remove')] as Edit[]).map(editWords))
    .toEqual(['speaker moved', 'speaker added', 'speaker removed', 'speaker changed', 'output details × 2', 'speaker moved × 2', 'change', 'repair', 'kind made', 'kind changed', 'kind removed', 'output moved × 2'])
})

/** Edits of amplifiers and repairs, each with what takes it back. */
const job = jobOf('2 x 5 W on 70 V', '8')
const two: typeof job = { ...job, amplifiers: [job.amplifiers[0]!, { ...job.amplifiers[0]!, id: 'amp2', outputs: [] }] }
const repair = { id: 'fix', at: '2026-05-04T09:00:00Z', outputId: 'out1', nodeId: 'o1n3', fault: 'open-at-drop' as const, note: 'screw', who: null, withdrawn: false }
test.each<[string, Edit, Edit, (on: typeof job) => unknown, unknown]>([
  ['an amplifier', { kind: 'amplifier.add', index: 0, amplifier: { id: 'b', name: 'B', place: 'loft', ...UNSTATED_AMPLIFIER, outputs: [] } }, { kind: 'amplifier.remove', amplifierId: 'b', was: { id: 'b', name: 'B', place: 'loft', ...UNSTATED_AMPLIFIER, outputs: [] } }, on => on.amplifiers.map(a => a.name), ['B', 'Amplifier A']],
  ['one taken away, with all on it', { kind: 'amplifier.remove', amplifierId: 'amp', was: null }, { kind: 'amplifier.add', index: 0, amplifier: job.amplifiers[0]! }, on => on.amplifiers, []],
  ['its name', { kind: 'amplifier.set', amplifierId: 'amp', was: { name: 'Amplifier A' }, to: { name: 'Rack' } }, { kind: 'amplifier.set', amplifierId: 'amp', was: { name: 'Rack' }, to: { name: 'Amplifier A' } }, on => on.amplifiers.map(a => [a.name, a.place, a.outputs.length]), [['Rack', 'rack', 2]]],
  ['an output taken away', { kind: 'output.remove', outputId: 'out2', was: job.amplifiers[0]!.outputs[1]! }, { kind: 'output.add', amplifierId: 'amp', index: 1, output: job.amplifiers[0]!.outputs[1]! }, on => on.amplifiers[0]!.outputs.map(o => o.label), ['A1']],
  ['an output to the head of its own amplifier', { kind: 'output.move', outputId: 'out2', amplifierId: 'amp', index: 0 }, { kind: 'output.move', outputId: 'out2', amplifierId: 'amp', index: 1 }, on => on.amplifiers[0]!.outputs.map(o => o.label), ['A2', 'A1']],
  ['a repair', { kind: 'repair.add', repair }, { kind: 'repair.withdraw', repairId: 'fix', withdrawn: true }, on => [...on.repairs].map(r => [r.note, r.withdrawn]), [['screw', false]]],
  ['a repair of a whole line', { kind: 'repair.add', repair: { ...repair, nodeId: null } }, { kind: 'repair.withdraw', repairId: 'fix', withdrawn: true }, on => [...on.repairs].length, 1],
])('%s', (_, edit, inverse, look, wanted) => {
  const applied = applyEdit(job, edit)
  expect([look(applied.job), applied.inverse]).toEqual([wanted, inverse])
  const back = applyEdit(applied.job, applied.inverse)
  if (inverse.kind !== 'repair.withdraw') expect(back.job).toEqual(job)
  else expect([[...back.job.repairs].map(r => r.withdrawn), back.inverse]).toEqual([[true], { ...inverse, withdrawn: false }])
})

test('an output goes to another amplifier with its line, and comes back to its place', () => {
  const { job: after, inverse } = applyEdit(two, { kind: 'output.move', outputId: 'out1', amplifierId: 'amp2', index: 4 })
  expect([after.amplifiers.map(a => a.outputs.map(o => o.id)), after.amplifiers[1]!.outputs[0]]).toEqual([[['out2'], ['out1']], two.amplifiers[0]!.outputs[0]])
  expect(applyEdit(after, inverse).job).toEqual(two)
  const full = { ...two, amplifiers: [two.amplifiers[0]!, { ...two.amplifiers[1]!, outputs: Array.from({ length: 200 }, (_, k) => ({ ...job.amplifiers[0]!.outputs[0]!, id: `full${k}` })) }] }
  expect(() => applyEdit(full, { kind: 'output.move', outputId: 'out1', amplifierId: 'amp2', index: 0 })).toThrow('too-many')
})

test.each<[string, Edit, string]>([
  ['an output that is gone, elsewhere', { kind: 'output.move', outputId: 'x', amplifierId: 'amp', index: 0 }, 'output x'],
  ['an output to an amplifier that is gone', { kind: 'output.move', outputId: 'out1', amplifierId: 'x', index: 0 }, 'amplifier x'],
  ['an amplifier that is gone', { kind: 'amplifier.remove', amplifierId: 'x', was: null }, 'amplifier x'], ['its name', { kind: 'amplifier.set', amplifierId: 'x', was: { name: 'a' }, to: { name: 'b' } }, 'amplifier x'],
  ['an output on it', { kind: 'output.add', amplifierId: 'x', index: 0, output: job.amplifiers[0]!.outputs[1]! }, 'amplifier x'], ['an output that is gone', { kind: 'output.remove', outputId: 'x', was: null }, 'output x'],
  ['its name', { kind: 'output.set', outputId: 'x', was: { name: '' }, to: { name: 'b' } }, 'output x'], ['a speaker into a group that is gone', { kind: 'node.move', nodeId: 'o1n3', parentId: 'x', index: 0 }, 'group x'],
  ['a new one there', { kind: 'node.add', parentId: 'x', index: 0, branch: { lead: null, node: { kind: 'series', id: 'q', children: [] } } }, 'group x'],
  ['one that is gone', { kind: 'node.move', nodeId: 'x', parentId: 'o1n3', index: 0 }, 'speaker x'],
])('%s is refused by name', (_, edit, wanted) => {
  try {
    applyEdit(job, edit)
    throw new Error('was taken')
  }
  catch (error) {
    if (!(error instanceof EditRefused)) throw error
    const { refusal } = error
    expect(refusal.code === 'not-there' && `${refusal.what} ${refusal.id}`).toBe(wanted)
  }
})

test.each<[string, (string | number)[], string]>([
  ['the document itself', [], ''], ['a field of it', ['name'], 'name'], ['an amplifier', ['amplifiers', 0], 'Amplifier A'], ['an output', ['amplifiers', 0, 'outputs', 1, 'rating'], 'Amplifier A, output A2, rating'],
  ['a speaker', ['amplifiers', 0, 'outputs', 0, 'wiring', 'children', 1, 'node', 'continuousW'], 'Amplifier A, output A1, speaker 02, power rating'],
  ['a point of a rating', ['amplifiers', 0, 'outputs', 1, 'rating', 'points', 0, 'powerW'], 'Amplifier A, output A2, rating, points, no. 1, powerW'],
  ['what is not there', ['amplifiers', 7, 'outputs', 2, 'wiring', 'children', 3, 'node'], 'amplifier 8, output 3'], ['a reading', ['readings', 4, 'value'], 'reading no. 5, value'],
])('%s as people speak of it', (_, path, wanted) => expect(placeWords(job, path)).toBe(wanted))
