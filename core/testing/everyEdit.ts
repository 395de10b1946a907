import { applyEdit } from '#core/job/apply'
import type { SimpleEdit } from '#core/job/edits'
import type { Amplifier, Job, Output } from '#core/job/schema'
import { plainSpace } from '#core/job/sections/spaces/schema'
import { UNMEASURED } from '#core/job/sections/tickets/schema'
import { UNSTATED_AMPLIFIER, UNSTATED_OUTPUT } from '#core/job/sections/wiring/schema'
import { unknownControl } from '#core/hands/throughs'
import { outputsOf, speakersOf, placeOf } from '#core/job/tree'
import { unstatedModel } from '#core/gear/models'

/** One edit of every kind that there is, in an order in which each fits what those before it left: for samples of a version, and for what holds for all. */

const AT = '2026-05-04T09:30:00Z'
const bare = (id: string): Output => ({
  id, label: `N-${id.slice(-4)}`, name: '', rating: { kind: 'not-known' }, ...UNSTATED_OUTPUT, wiring: { kind: 'chain', id: `${id}-line`, children: [] },
})
const amplifier = (id: string): Amplifier => ({ id, name: `Added ${id}`, place: '', ...UNSTATED_AMPLIFIER, outputs: [bare(`${id}-out`)] })

/** The first speaker that hangs on a chain of its own, with its line. */
function firstSpeaker(job: Job) {
  const output = outputsOf(job).find(o => speakersOf(o.wiring).length > 0)!
  return { output, speaker: speakersOf(output.wiring)[0]! }
}

type Made = { [K in SimpleEdit['kind']]: (job: Job) => Extract<SimpleEdit, { kind: K }> }
const EDITS: Made = {
  'job.set': job => ({ kind: 'job.set', was: { note: job.note }, to: { note: 'an edit of every kind' } }),
  'practice.set': job => ({ kind: 'practice.set', was: { valve: job.practice.valve }, to: { valve: job.practice.valve === 'up-is-safe' ? 'match-exactly' : 'up-is-safe' } }),
  'checks.set': job => ({ kind: 'checks.set', was: { coils: job.checks.coils }, to: { coils: 'samples' } }),
  'kind.add': () => ({ kind: 'kind.add', index: 0, item: { what: 'speaker', id: 'every-kind', from: null, model: unstatedModel('speaker', 'Added kind') } }),
  'kind.set': job => ({ kind: 'kind.set', kindId: 'every-kind', was: { model: job.kinds[0]!.model }, to: { model: { ...job.kinds[0]!.model, remark: 'set' } } }),
  'zone.add': () => ({ kind: 'zone.add', index: 0, zone: { id: 'every-zone', name: 'Added zone' } }),
  'zone.set': () => ({ kind: 'zone.set', zoneId: 'every-zone', was: { name: 'Added zone' }, to: { name: 'Zone' } }),
  'space.add': () => ({ kind: 'space.add', index: 0, space: { ...plainSpace('every-space', 'Added space'), kindId: 'every-kind' } }),
  'space.set': () => ({ kind: 'space.set', spaceId: 'every-space', was: { name: 'Added space' }, to: { name: 'Space' } }),
  'spot.add': job => ({ kind: 'spot.add', spaceId: 'every-space', index: 0, spot: { id: 'every-spot', xM: 1, yM: 1, heightM: null, aim: null, nodeId: freeSpeaker(job) } }),
  'spot.set': () => ({ kind: 'spot.set', spaceId: 'every-space', spotId: 'every-spot', was: { xM: 1 }, to: { xM: 2 } }),
  'measured.add': () => ({ kind: 'measured.add', spaceId: 'every-space', index: 0, measured: { id: 'every-measured', xM: 1, yM: 1, db: 71, at: AT, note: '' } }),
  'share.set': () => ({ kind: 'share.set', roomId: 'every-space', was: { sharer: null }, to: { sharer: { who: 'every-device', name: 'Added phone' } } }),
  'variant.add': job => ({ kind: 'variant.add', index: 0, variant: { id: 'every-variant', name: 'Kept beside', at: AT, amplifiers: job.amplifiers } }),
  'variant.set': () => ({ kind: 'variant.set', variantId: 'every-variant', was: { name: 'Kept beside' }, to: { name: 'As it was' } }),
  'amplifier.add': () => ({ kind: 'amplifier.add', index: 100, amplifier: amplifier('every-amp') }),
  'amplifier.set': () => ({ kind: 'amplifier.set', amplifierId: 'every-amp', was: { place: '' }, to: { place: 'loft' } }),
  'output.add': () => ({ kind: 'output.add', amplifierId: 'every-amp', index: 1, output: bare('every-out') }),
  'output.set': () => ({ kind: 'output.set', outputId: 'every-out', was: { rating: { kind: 'not-known' } }, to: { rating: { kind: 'constant-voltage', lineV: 70.71, powerW: 100 } } }),
  'output.move': job => ({ kind: 'output.move', outputId: 'every-out', amplifierId: job.amplifiers[0]!.id, index: 100 }),
  'node.add': job => ({
    kind: 'node.add', parentId: 'every-out-line', index: 0,
    branch: { lead: { cable: { awg: 16 }, lengthM: 4 }, node: { kind: 'series', id: 'every-group', children: [{ lead: null, node: { ...firstSpeaker(job).speaker, id: 'every-speaker', label: 'N1', kindId: 'every-kind', zoneId: 'every-zone' } }] } },
  }),
  'through.set': () => ({ kind: 'through.set', nodeId: 'every-group', was: null, to: unknownControl('C9') }),
  'speaker.set': job => ({ kind: 'speaker.set', nodeId: 'every-speaker', was: { continuousW: firstSpeaker(job).speaker.continuousW }, to: { continuousW: 44 } }),
  'lead.set': job => ({ kind: 'lead.set', nodeId: 'every-group', was: placeOf(job, 'every-group').branch.lead, to: { cable: { areaMm2: 1.5 }, lengthM: 9 } }),
  'colours.set': job => ({ kind: 'colours.set', was: job.colourExceptions, to: [...job.colourExceptions, [{ base: 'pink', stripe: 'black' }, { base: 'pink', stripe: '' }]] }),
  'splice.set': () => ({
    kind: 'splice.set', nodeId: 'every-speaker', was: { pair: null, start: null },
    to: { pair: [{ base: 'grey', stripe: '' }, { base: 'grey', stripe: 'red' }], start: 'crossed' },
  }),
  'node.move': job => ({ kind: 'node.move', nodeId: 'every-group', parentId: firstSpeaker(job).output.wiring.id, index: 0 }),
  'reading.add': () => ({
    kind: 'reading.add', reading: {
      id: 'every-reading', at: AT, kind: 'coil-dcr', outputId: '', nodeId: 'every-speaker', value: { is: 'ohm', ohm: 6.1 }, note: 'read', frequencyHz: null, supersedes: null,
      taken: { by: 'Iris', meter: 'blue', leadsOhm: 0.2 }, who: null, withdrawn: false,
    },
  }),
  'reading.withdraw': () => ({ kind: 'reading.withdraw', readingId: 'every-reading', withdrawn: true }),
  'leaving.add': () => ({ kind: 'leaving.add', leaving: { id: 'every-leaving', at: AT, outputId: '', nodeId: 'every-speaker', kind: 'coil-dcr', reason: 'the pair next door', who: null, withdrawn: false } }),
  'leaving.withdraw': () => ({ kind: 'leaving.withdraw', leavingId: 'every-leaving', withdrawn: true }),
  'photo.add': () => ({
    kind: 'photo.add', photo: { id: 'every-photo', at: AT, outputId: '', nodeId: 'every-speaker', repairId: null, hash: 'ab'.repeat(32), widthPx: 1600, heightPx: 1200, caption: 'behind the grille', who: null, withdrawn: false },
  }),
  'photo.withdraw': () => ({ kind: 'photo.withdraw', photoId: 'every-photo', withdrawn: true }),
  'drawer.add': () => ({ kind: 'drawer.add', index: 0, item: { id: 'every-drawer', count: 2, model: unstatedModel('speaker', 'In the drawer') } }),
  'drawer.set': () => ({ kind: 'drawer.set', drawerId: 'every-drawer', was: { count: 2 }, to: { count: 1 } }),
  'ticket.write': () => ({
    kind: 'ticket.write', entry: {
      id: 'every-ticket', at: AT, ticketId: 'every-ticket', who: null, withdrawn: false,
      what: { is: 'opened', head: { unit: 'Handset', kind: 'handset', ...UNMEASURED, labelOhm: 32, complaint: 'one side is dead', folklore: 'it is the socket', from: null } },
    },
  }),
  'ticket.withdraw': () => ({ kind: 'ticket.withdraw', entryId: 'every-ticket', withdrawn: true }),
  'repair.add': () => ({ kind: 'repair.add', repair: { id: 'every-repair', at: AT, outputId: '', nodeId: 'every-speaker', fault: 'open-at-drop', note: 'remade', who: null, withdrawn: false } }),
  'repair.withdraw': () => ({ kind: 'repair.withdraw', repairId: 'every-repair', withdrawn: true }),
  'node.remove': () => ({ kind: 'node.remove', nodeId: 'every-group', was: null }),
  'spot.remove': () => ({ kind: 'spot.remove', spaceId: 'every-space', spotId: 'every-spot', was: null }),
  'measured.remove': () => ({ kind: 'measured.remove', spaceId: 'every-space', measuredId: 'every-measured', was: { id: 'every-measured', xM: 1, yM: 1, db: 71, at: AT, note: '' } }),
  'space.remove': () => ({ kind: 'space.remove', spaceId: 'every-space', was: null }),
  'output.remove': () => ({ kind: 'output.remove', outputId: 'every-out', was: null }),
  'amplifier.remove': job => ({ kind: 'amplifier.remove', amplifierId: 'every-amp', was: job.amplifiers.find(a => a.id === 'every-amp')! }),
  'variant.remove': () => ({ kind: 'variant.remove', variantId: 'every-variant', was: null }),
  'zone.remove': () => ({ kind: 'zone.remove', zoneId: 'every-zone', was: null }),
  'drawer.remove': () => ({ kind: 'drawer.remove', drawerId: 'every-drawer', was: null }),
  'kind.remove': () => ({ kind: 'kind.remove', kindId: 'every-kind', was: null }),
}

/** A speaker that hangs at no place of a space yet. */
function freeSpeaker(job: Job): string | null {
  const taken = new Set(job.spaces.flatMap(s => s.spots.map(p => p.nodeId)))
  return outputsOf(job).flatMap(o => speakersOf(o.wiring)).find(s => !taken.has(s.id))?.id ?? null
}

/** Every kind's edit of this job, each to be applied after those before it. */
export function everyEdit(start: Job): SimpleEdit[] {
  let job = start
  return Object.values(EDITS).map((make) => {
    let edit = make(job) as SimpleEdit
    const line = outputsOf(job).find(o => speakersOf(o.wiring).some(s => s.id === 'every-speaker'))?.id ?? ''
    if (edit.kind === 'reading.add') edit = { ...edit, reading: { ...edit.reading, outputId: line } }
    if (edit.kind === 'repair.add') edit = { ...edit, repair: { ...edit.repair, outputId: line } }
    if (edit.kind === 'photo.add') edit = { ...edit, photo: { ...edit.photo, outputId: line } }
    if (edit.kind === 'leaving.add') edit = { ...edit, leaving: { ...edit.leaving, outputId: line } }
    job = applyEdit(job, edit).job
    return edit
  })
}
