import { readFileSync } from 'node:fs'
import { describe, expect, test } from '@jest/globals'
import { InputError } from '#core/quantity/inputError'
import { JobError } from '#core/job/jobError'
import type { Edit } from '#core/job/edits'
import { putBefore, unknownControl } from '#core/hands/throughs'
import { FORMAT_VERSION, type Speaker } from '#core/job/schema'
import { UNSTATED_INPUT, UNSTATED_SOURCE } from '#core/job/sections/wiring/schema'
import { jobOf, outputOf } from '#core/testing/jobs'
import { fileNameOf, readJobFile, writeJobFile } from './plainMatch'
import { writeSpice } from './spice'
import { plainSpace } from '#core/job/sections/spaces/schema'
import { findSpeaker, throughsOf, withBranch } from '#core/job/tree'
import { makeKind } from '#core/hands/kinds'
import { applyEdit } from '#core/job/apply'
import type { OutputRating } from '#core/amplifier/rating'
import { upgradedEdit } from '#core/job/upgrade'
import { oneChannel } from '#core/job/upgrades/from7'
import type { Fields } from '#core/job/upgrades/step'

test('a job goes out and comes in the same', () => {
  const job = jobOf('12 x 5 W + 2 x 20 W on 70 V 120 W', '(8 + 8) || 4')
  expect(readJobFile(writeJobFile(job))).toEqual({ job, remarks: [] })
})

test('a file that version 1 wrote comes in: a second correction corrects the first, and what stands at a removed speaker is told', () => {
  const { job, remarks } = readJobFile(readFileSync('tests/samples/job-version-1.plainmatch.json', 'utf8'))
  expect(['v1-r2', 'v1-r3'].map(id => job.readings.get(id)!.supersedes)).toEqual(['v1-r1', 'v1-r2'])
  expect(remarks).toEqual([expect.stringMatching(/^1 × reading of speaker “fh-fern-06”/), expect.stringMatching(/^1 × repair of speaker “fh-fern-06”/)])
  expect(readJobFile(writeJobFile(job))).toEqual({ job, remarks })
  expect(readJobFile(writeJobFile({ ...job, readings: job.readings.replaced({ ...job.readings.get('v1-r4')!, note: 'x' }) }))).not.toEqual({ job, remarks })
})

test('a file that version 2 wrote comes in as it is; a repair of a whole line goes out and comes in', () => {
  const { job, remarks } = readJobFile(readFileSync('tests/samples/job-version-2.plainmatch.json', 'utf8'))
  expect([job.note, job.repairs.get('v2-fix')!.nodeId === null, job.readings.get('v2-r2')!.supersedes, remarks]).toEqual(['kept by version 2', false, 'v2-r1', [expect.stringMatching(/^2 × reading of speaker/)]])
  const whole = { ...job, repairs: job.repairs.added({ ...job.repairs.get('v2-fix')!, id: 'v3-fix', nodeId: null, fault: 'taps-on-other-scale' }) }
  expect(readJobFile(writeJobFile(whole))).toEqual({ job: whole, remarks })
})

test('a file that version 3 wrote comes in as it is: nobody had said how a reading was taken; what is said goes out and comes in', () => {
  const { job, remarks } = readJobFile(readFileSync('tests/samples/job-version-3.plainmatch.json', 'utf8'))
  expect([job.note, [...job.readings].every(r => r.taken === null), job.readings.get('v3-r3')!.value, job.repairs.get('v3-fix')!.nodeId, remarks]).toEqual(['kept by version 3', true, { is: 'plays' }, null, []])
  const said = job.readings.replaced({ ...job.readings.get('v3-r3')!, value: { is: 'comes-and-goes' }, taken: { by: 'Iris', meter: 'blue one', leadsOhm: 0.2 } })
  expect(readJobFile(writeJobFile({ ...job, readings: said }))).toEqual({ job: { ...job, readings: said }, remarks: [] })
})

test('a file that version 4 wrote comes in as it is, of no kinds; kinds and units of several coils go out and come in', () => {
  const { job, remarks } = readJobFile(readFileSync('tests/samples/job-version-4.plainmatch.json', 'utf8'))
  expect([job.note, job.kinds, findSpeaker(job, 'v4-new')!.speaker.kindId, remarks.length]).toEqual(['kept by version 4', [], null, 0])
  const load = { kind: 'members' as const, joined: 'series' as const, members: [{ kind: 'nominal' as const, nominalOhm: 4 }, { kind: 'nominal' as const, nominalOhm: 2 }] }
  const made = applyEdit(job, makeKind(job, ['v4-new'], 'x', () => 'v5-kind')!.edit).job
  const coils = applyEdit(made, { kind: 'speaker.set', nodeId: 'v4-new', was: { load: findSpeaker(made, 'v4-new')!.speaker.load }, to: { load } }).job
  expect(readJobFile(writeJobFile(coils))).toEqual({ job: coils, remarks })
})

test('a file that version 5 wrote comes in with no loss stated; controls, losses and a high-pass go out and come in', () => {
  const { job, remarks } = readJobFile(readFileSync('tests/samples/job-version-5.plainmatch.json', 'utf8'))
  const load = findSpeaker(job, 'v5-s1')!.speaker.load
  expect([job.note, load.kind === 'tap' && [load.insertionDb, load.tapMeans], job.amplifiers.map(a => a.highPassHz), remarks.length]).toEqual(['kept by version 5', [null, null], [null, null, null], 0])
  const lossy = applyEdit(job, { kind: 'speaker.set', nodeId: 'v5-s1', was: { load }, to: { load: { ...load, insertionDb: 1.1, tapMeans: 'driver-gets' } as typeof load } }).job
  const controlled = applyEdit(lossy, (putBefore(lossy, ['v5-s3'], { ...unknownControl('C1'), setDb: 'off' }, () => 'v6-g') as { edit: Edit }).edit).job
  const whole = applyEdit(controlled, { kind: 'amplifier.set', amplifierId: 'v5-amp', was: { highPassHz: null }, to: { highPassHz: 'none' } }).job
  expect(readJobFile(writeJobFile(whole))).toEqual({ job: whole, remarks })
})

test('a file that version 6 wrote comes in with no spaces; spaces, places and measured levels go out and come in', () => {
  const { job, remarks } = readJobFile(readFileSync('tests/samples/job-version-6.plainmatch.json', 'utf8'))
  expect([job.note, job.spaces, job.zones.map(z => z.name), throughsOf(job).length, remarks.length]).toEqual(['kept by version 6', [], ['Shop', 'Palm gate'], 2, 0])
  const spot = { id: 'p1', xM: 1, yM: 2, heightM: 4, aim: { turnDeg: 90, tiltDeg: 15 }, nodeId: 'fh-palm-01' }
  const measured = { id: 'm1', xM: 2, yM: 2, db: 71.5, at: '2026-05-04T09:30:00Z', note: 'by the gate' }
  const spaced = applyEdit(job, { kind: 'space.add', index: 0, space: { ...plainSpace('s1', 'Palm house'), spots: [spot], measured: [measured] } }).job
  expect(readJobFile(writeJobFile(spaced))).toEqual({ job: spaced, remarks })
})

test('a file that version 7 wrote comes in with one channel an output, also in its variants; curves, cabinets, coils, valve outputs and parts in the way go out and come in', () => {
  const { job, remarks } = readJobFile(readFileSync('tests/samples/job-version-7.plainmatch.json', 'utf8'))
  const ratings = [job, ...job.variants].flatMap(({ amplifiers }) => amplifiers.flatMap(a => a.outputs.map(o => o.rating)))
  expect([job.note, job.practice, new Set(ratings.map(r => r.kind === 'solid-state' ? r.mode : r.kind)), ratings.length, job.kinds.length, remarks.length])
    .toEqual(['kept by version 7', { reserve: 'use-four-fifths', power: 'careful', valve: 'match-exactly', stripe: 'plain-is-plus' }, new Set(['single']), 8, job.kinds.length, 0])
  const [output] = job.amplifiers[0]!.outputs
  const was = { load: findSpeaker(job, 'v7-s1')!.speaker.load }
  const positions = [{ jack: '16 Ω', switchTo: 'mono', plays: 'all' as const, load: { kind: 'nominal' as const, nominalOhm: 16 } }]
  const loads = [
    { kind: 'curve' as const, nominalOhm: 8, reOhm: null, points: [[20, 6, -3], [200, 9, null]] as [number, number, number | null][] }, { kind: 'cabinet' as const, at: 0, positions },
    { kind: 'coil' as const, unit: 'Sub', of: 2, coil: { kind: 'nominal' as const, nominalOhm: 4 } },
  ]
  for (const load of loads) {
    const with8 = [
      { kind: 'speaker.set' as const, nodeId: 'v7-s1', was, to: { load } },
      { kind: 'output.set' as const, outputId: output!.id, was: { rating: output!.rating }, to: { rating: { kind: 'valve' as const, powerW: 50, tapsOhm: [4, 8, 16], tapOhm: 8, chosenBy: 'selector' as const } } },
      (putBefore(job, ['v7-s1'], { kind: 'capacitor', label: 'F1', name: '', from: null, capacitanceF: 1e-4 }, () => 'v8-g') as { edit: Edit }).edit,
    ].reduce((j, edit) => applyEdit(j, edit).job, job)
    expect(readJobFile(writeJobFile(with8))).toEqual({ job: with8, remarks })
  }
})

describe('files that are no job', () => {
  const good = writeJobFile(jobOf('8'))
  test.each<[string, string, RegExp]>([
    ['empty', '', /not JSON/], ['cut short', good.slice(0, 200), /cut short/], ['a list', '[]', /not a job|another kind|no job|object/i], ['a number', '7', /not a job|another kind|no job|object/i],
    ['of a newer program', good.replace(`"version": ${FORMAT_VERSION}`, `"version": ${FORMAT_VERSION + 1}`), /newer program/], ['of another kind', good.replace('plain-match job', 'x'), /another kind/],
  ])('%s', (_, text, says) => {
    expect(() => readJobFile(text)).toThrow(says)
    try {
      readJobFile(text)
    }
    catch (error) {
      expect(error instanceof InputError || error instanceof JobError).toBe(true)
    }
  })
})

test.each([['Fernhollow Glasshouses', 'Fernhollow-Glasshouses'], ['../../etc', 'etc'], ['Büro №1', 'Buro-No1'], ['///', 'job']])('the file of “%s” is %s', (name, file) =>
  expect(fileNameOf(name)).toBe(`${file}.plainmatch.json`))

test('the netlist of two in series: one source, two resistors end to end', () => {
  const { text } = writeSpice({ lead: null, node: outputOf(jobOf('8 + 4')).wiring }, 'two\nlines', { headV: 10, fromHz: 1000, toHz: 1000, perDecade: 1 })
  expect(text.split('\n').slice(0, 4)).toEqual(['* two lines', 'V1 n1 0 DC 0 AC 10', 'R1 n1 n2 8.0000000000000000e+0', 'R2 n2 0 4.0000000000000000e+0'])
})

test('a file that version 8 wrote comes in playing everything, fed by nothing known, in its variants too; bands, sources, limiters and bridged floors go out and come in', () => {
  const { job, remarks } = readJobFile(readFileSync('tests/samples/job-version-8.plainmatch.json', 'utf8'))
  const amplifiers = [job, ...job.variants].flatMap(j => j.amplifiers)
  const outputs = amplifiers.flatMap(a => a.outputs)
  expect([job.note, job.practice.valve, amplifiers.length, outputs.length, remarks.length]).toEqual(['kept by version 8', 'up-is-safe', 3, 10, 0])
  expect(new Set(amplifiers.map(({ made, gainDb, inputV, inputOhm, inputs, protection }) => JSON.stringify([made, gainDb, inputV, inputOhm, inputs, protection])))).toEqual(new Set(['[null,null,null,null,[],""]']))
  expect(new Set(outputs.map(({ band, limiterV, rating }) => JSON.stringify([band, limiterV, rating.kind === 'solid-state' && rating.bridgedFloorOhm])))).toEqual(new Set(['[null,null,null]', '[null,null,false]']))
  const [amplifier] = job.amplifiers
  const [output] = amplifier!.outputs
  const with9 = [
    { kind: 'output.set' as const, outputId: output!.id, was: { band: null, limiterV: null, rating: output!.rating }, to: { band: { system: 'Stage', fromHz: 100, toHz: null, slopeDb: 24 as const, setDb: 3 }, limiterV: 40, rating: { ...output!.rating, bridgedFloorOhm: 8 } as OutputRating } },
    { kind: 'amplifier.set' as const, amplifierId: amplifier!.id, was: { made: null, gainDb: null, inputs: [], protection: '' }, to: { made: 'vehicle' as const, gainDb: 32, inputs: [{ ...UNSTATED_INPUT, source: { ...UNSTATED_SOURCE, name: 'Mixer', volts: 1.2 } }], protection: 'Cuts out.' } },
  ].reduce((j, edit) => applyEdit(j, edit).job, job)
  expect(readJobFile(writeJobFile(with9))).toEqual({ job: with9, remarks })
})

test('edits of version 8, also inside a batch: an output plays everything, nothing feeds an amplifier, two bridged have no floor of their own', () => {
  const rating = { kind: 'solid-state', points: [{ loadOhm: 4, powerW: 90 }], floorOhm: 2, mode: 'single' }
  const known = { ...rating, bridgedFloorOhm: null }
  const everything = { band: null, limiterV: null, terminals: null }
  const [box, told] = [{ id: 'k', model: { name: 'Box' } }, { id: 'k', model: { name: 'Box', magnetMm: null, plusMark: '' } }]
  const amplifier = { id: 'a', outputs: [{ id: 'o', rating }, { id: 'p', rating: { kind: 'not-known' } }] }
  const whole = { made: null, gainDb: null, inputV: null, inputOhm: null, inputs: [], protection: '', id: 'a', outputs: [{ ...everything, id: 'o', rating: known }, { ...everything, id: 'p', rating: { kind: 'not-known' } }] }
  const edits: [object, object][] = [
    [{ kind: 'amplifier.add', amplifier }, { kind: 'amplifier.add', amplifier: whole }], [{ kind: 'output.add', output: { rating } }, { kind: 'output.add', output: { ...everything, rating: known } }],
    [{ kind: 'output.set', was: { rating }, to: { name: 'Deck' } }, { kind: 'output.set', was: { rating: known }, to: { name: 'Deck' } }],
    [{ kind: 'output.set', was: { name: '' }, to: { rating } }, { kind: 'output.set', was: { name: '' }, to: { rating: known } }],
    [{ kind: 'variant.add', variant: { amplifiers: [amplifier] } }, { kind: 'variant.add', variant: { amplifiers: [whole] } }], [{ kind: 'amplifier.set', was: { name: 'a' }, to: { name: 'b' } }, { kind: 'amplifier.set', was: { name: 'a' }, to: { name: 'b' } }],
    [{ kind: 'kind.add', item: box }, { kind: 'kind.add', item: told }], [{ kind: 'kind.set', was: box, to: { from: null } }, { kind: 'kind.set', was: told, to: { from: null } }],
  ]
  for (const [before, after] of edits) expect([upgradedEdit(before, 8), upgradedEdit({ kind: 'batch', edits: [before] }, 8)]).toMatchObject([after, { kind: 'batch', edits: [after] }])
})

test('edits of version 7, also inside a batch: an output has one channel, a model states no curve and no jacks', () => {
  const rating = { kind: 'solid-state', points: [{ loadOhm: 4, powerW: 90 }], floorOhm: 2 }
  const amplifier = { id: 'a', outputs: [{ id: 'o', rating }, { id: 'p', rating: { kind: 'not-known' } }] }
  const single = { id: 'a', outputs: [{ id: 'o', rating: { ...rating, mode: 'single' } }, { id: 'p', rating: { kind: 'not-known' } }] }
  const [was, is] = [{ id: 'k', model: { name: 'Box' } }, { id: 'k', model: { name: 'Box', curve: null, positions: null } }]
  const edits: [object, object][] = [
    [{ kind: 'amplifier.add', amplifier }, { kind: 'amplifier.add', amplifier: single }], [{ kind: 'output.add', output: { rating } }, { kind: 'output.add', output: { rating: { ...rating, mode: 'single' } } }],
    [{ kind: 'output.set', was: { rating }, to: { name: 'Deck' } }, { kind: 'output.set', was: { rating: { ...rating, mode: 'single' } }, to: { name: 'Deck' } }],
    [{ kind: 'variant.add', variant: { amplifiers: [amplifier] } }, { kind: 'variant.add', variant: { amplifiers: [single] } }],
    [{ kind: 'kind.add', item: was }, { kind: 'kind.add', item: is }], [{ kind: 'kind.set', was, to: { from: null } }, { kind: 'kind.set', was: is, to: { from: null } }], [{ kind: 'job.set', to: { note: 'x' } }, { kind: 'job.set', to: { note: 'x' } }],
  ]
  for (const [before, after] of edits) expect([oneChannel.edit(before as Fields), oneChannel.edit({ kind: 'batch', edits: [before] })]).toEqual([after, { kind: 'batch', edits: [after] }])
})

test('a file that version 9 wrote comes in whole: nobody had signed in, and all of it goes out and comes in again', () => {
  const { job, remarks } = readJobFile(readFileSync('tests/samples/job-version-9.plainmatch.json', 'utf8'))
  expect([job.note, ...[job.kinds, job.zones, job.spaces, job.variants].map(list => list.some(item => item.id.startsWith('every-'))), remarks.length]).toEqual(['an edit of every kind', true, true, true, true, 0])
  expect([...job.readings, ...job.repairs].map(entry => entry.who)).toEqual(Array.from({ length: 8 }, () => null))
  expect(readJobFile(writeJobFile(job))).toEqual({ job, remarks })
})

test('a file that version 11 wrote comes in whole; an edit of then that takes a thing away says nothing of what it was', () => {
  const { job, remarks } = readJobFile(readFileSync('tests/samples/job-version-11.plainmatch.json', 'utf8'))
  expect([job.note, job.kinds.length > 0, remarks]).toEqual(['an edit of every kind', true, []])
  const edits = [{ kind: 'kind.remove' }, { kind: 'zone.remove' }, { kind: 'variant.remove' }, { kind: 'space.remove' }, { kind: 'spot.remove' }, { kind: 'measured.remove' }]
  for (const edit of edits) expect([upgradedEdit(edit, 11), upgradedEdit({ kind: 'batch', edits: [edit] }, 11)]).toMatchObject([{ was: null }, { edits: [{ was: null }] }])
})

test('a file that names what is not in it is mended, and each name is told with its place; what an edit of this program may do it may not', () => {
  const job = jobOf('2 x 5 W on 70 V', '8')
  const speaker = outputOf(job).wiring.children[1]!.node as Speaker
  const broken = JSON.parse(writeJobFile(withBranch(job, speaker.id, b => ({ ...b, node: { ...speaker, kindId: 'gone', zoneId: 'lost' } })))) as Record<string, unknown>
  const space = { ...plainSpace('s', 'Hall'), kindId: 'gone' }
  const read = readJobFile(JSON.stringify({ ...broken, spaces: [space] }))
  expect(read.job).toEqual({ ...job, spaces: [{ ...space, kindId: null }] })
  expect(read.remarks).toEqual([
    'Hall, kind: the kind “gone” is not in the file. Taken as none.', 'Amplifier A, output A1, speaker 02, kind: the kind “gone” is not in the file. Taken as none.',
    'Amplifier A, output A1, speaker 02, zone: the zone “lost” is not in the file. Taken as none.',
  ])
})

test.each<[string, object]>([
  ['without its version', { version: undefined }],
  ['of a version that never was', { version: 0 }],
  ['of a version in words', { version: 'nine' }],
  ['of half a version', { version: 8.5 }],
])('a file %s is not taken for one of this version', (_, change) =>
  expect(() => readJobFile(JSON.stringify({ ...JSON.parse(writeJobFile(jobOf('8'))) as object, ...change }))).toThrow(/version: must be/))

test('a file that version 15 wrote comes in with its source at an input, in its variants and edits too', () => {
  const { job, remarks } = readJobFile(readFileSync('tests/samples/job-version-15.plainmatch.json', 'utf8'))
  const fed = [{ ...UNSTATED_INPUT, source: { ...UNSTATED_SOURCE, name: 'Saloon radio, line out', volts: 2, ohm: 1000 } }]
  expect([job.note, remarks, [job, ...job.variants].flatMap(j => j.amplifiers).map(a => a.inputs.length > 0 ? a.inputs : a.name)]).toEqual(['an edit of every kind', [], [fed, 'Added every-amp', fed]])
  expect(readJobFile(writeJobFile(job))).toEqual({ job, remarks })
  const source = { name: 'Mixer', volts: null, ohm: 600 }
  const inputs = [{ ...UNSTATED_INPUT, source: { ...UNSTATED_SOURCE, name: 'Mixer', ohm: 600 } }]
  const rows: [object, object][] = [
    [{ kind: 'amplifier.set', was: { source: null, gainDb: 3 }, to: { source } }, { kind: 'amplifier.set', was: { inputs: [], gainDb: 3 }, to: { inputs } }],
    [{ kind: 'amplifier.set', was: { name: 'a' }, to: { name: 'b' } }, { kind: 'amplifier.set', was: { name: 'a' }, to: { name: 'b' } }],
    [{ kind: 'amplifier.remove', was: { id: 'a', source } }, { kind: 'amplifier.remove', was: expect.objectContaining({ id: 'a', inputs }) }],
    [{ kind: 'amplifier.remove', was: null }, { kind: 'amplifier.remove', was: null }],
    [{ kind: 'variant.remove', was: { amplifiers: [{ id: 'a', source: null }] } }, { kind: 'variant.remove', was: { amplifiers: [expect.objectContaining({ inputs: [] })] } }],
  ]
  for (const [old, now] of rows) {
    expect(upgradedEdit(old, 15)).toMatchObject(now)
    expect(upgradedEdit({ kind: 'batch', edits: [old] }, 15)).toMatchObject({ edits: [now] })
    expect(JSON.stringify(upgradedEdit(old, 15))).not.toMatch(/"source":null,"(gainDb|id)"/)
  }
})

test('edits go through all steps from their version to this one', () => {
  const rating = { kind: 'solid-state', points: [{ loadOhm: 4, powerW: 90 }], floorOhm: 2 }
  const edit = { kind: 'output.set', was: { rating: { kind: 'not-known' } }, to: { rating } }
  expect([upgradedEdit(edit, 7), upgradedEdit(edit, 1), upgradedEdit(edit, FORMAT_VERSION)]).toMatchObject([
    { to: { rating: { mode: 'single', bridgedFloorOhm: null } } }, { to: { rating: { mode: 'single', bridgedFloorOhm: null } } }, edit,
  ])
})
