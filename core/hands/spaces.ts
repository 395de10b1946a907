import { same } from '#core/quantity/same'
import { isKnown, lineVoltsOf } from '#core/amplifier/index'
import type { Cable } from '#core/quantity/cable'
import { MOST_PLACES } from '#core/room/limits'
import { boxOf, contains, type Place } from '#core/room/outline'
import { leadLengthsM, walkOrder } from '#core/room/walls'
import { applyEdit } from '#core/job/apply'
import { partsOf, setting, together, type Edit, type SimpleEdit } from '#core/job/edits'
import { addAmplifier, addOutput, freeLabel, type NewId } from './intents'
import { fieldsOf, kindOf } from './kinds'
import { removeEach } from './many/many'
import type { Branch, Job, Output, Space, Speaker, Spot } from '#core/job/schema'
import { plainSpace } from '#core/job/sections/spaces/schema'
import { cableOn, findOutput, findSpeaker, outputsOf, speakersOf } from '#core/job/tree'

/** Spaces of a job, as hands change them. Each gives null where there is nothing to do. */

export const spaceById = (job: Pick<Job, 'spaces'>, spaceId: string | null): Space | null => job.spaces.find(s => s.id === spaceId) ?? null

/** The space and the place where a speaker hangs. */
export function spotOf(job: Pick<Job, 'spaces'>, nodeId: string): { space: Space, spot: Spot } | null {
  for (const space of job.spaces) {
    const spot = space.spots.find(s => s.nodeId === nodeId)
    if (spot) return { space, spot }
  }
  return null
}

/** The speaker at a place; null while none hangs there, or it was taken off. */
export function speakerAt(job: Job, { nodeId }: Spot): { speaker: Speaker, output: Output } | null {
  return nodeId === null ? null : findSpeaker(job, nodeId)
}

/** A space more, behind the others; of a like one it takes the storey. */
export function addSpace(job: Job, newId: NewId): { edit: Edit, spaceId: string } {
  const taken = new Set(job.spaces.map(s => s.name))
  let number = 1
  while (taken.has(`Space ${number}`)) number++
  const last = job.spaces.at(-1)
  // The next room of a house is mostly for the same, as high, with the same speaker; its noise, its floor and its cable are its own.
  const { floor, use, heightM, earsM, ceiling, kindId, overlap, peaks, slack } = last ?? plainSpace('', '')
  const space: Space = { ...plainSpace(newId(), `Space ${number}`), floor, use, heightM, earsM, ceiling, kindId, overlap, peaks, slack }
  return { edit: { kind: 'space.add', index: job.spaces.length, space }, spaceId: space.id }
}

/** Sets what changes of a space; null where nothing does. */
export function setSpace(space: Space, to: Partial<Omit<Space, 'id' | 'spots' | 'measured'>>): Edit | null {
  const changed = Object.fromEntries(Object.entries(to).filter(([field, value]) => !same(space[field as keyof Space], value)))
  if (Object.keys(changed).length === 0) return null
  return { kind: 'space.set', spaceId: space.id, ...setting<Space, Partial<Space>>(space, changed) } as Edit
}

const distance = (a: Place, b: Place) => Math.hypot(a.xM - b.xM, a.yM - b.yM)

/**
 * Lays a space out anew. Places that are there move to the nearest new one, with the speakers that hang there; what is over goes, its speakers with it; what
 * is missing comes, with none yet. One edit.
 */
export function layOut(job: Job, space: Space, places: readonly Place[], newId: NewId): Edit | null {
  const pairs = space.spots.flatMap(spot => places.map((place, k) => ({ spot, k, m: distance(spot, place) }))).sort((a, b) => a.m - b.m)
  const takenBy = new Map<number, Spot>()
  const moved = new Set<Spot>()
  for (const { spot, k } of pairs) {
    if (moved.has(spot) || takenBy.has(k)) continue
    moved.add(spot)
    takenBy.set(k, spot)
  }
  const over = space.spots.filter(s => !moved.has(s))
  const removed = takeOff(job, space, over.map(s => s.id))
  const edits = [...removed ? partsOf(removed) : []]
  places.forEach(({ xM, yM }, k) => {
    const spot = takenBy.get(k)
    const to = { xM, yM }
    if (!spot) edits.push({ kind: 'spot.add', spaceId: space.id, index: MOST_PLACES, spot: { id: newId(), ...to, heightM: null, aim: null, nodeId: null } })
    else if (distance(spot, to) > 0) edits.push({ kind: 'spot.set', spaceId: space.id, spotId: spot.id, ...setting<Spot, Place>(spot, to) })
  })
  return together(edits)
}

/** A place more; null beside the floor. */
export function addSpot(space: Space, { xM, yM }: Place, newId: NewId): { edit: Edit, spotId: string } | null {
  if (!contains(space.outline, { xM, yM })) return null
  const spot: Spot = { id: newId(), xM, yM, heightM: null, aim: null, nodeId: null }
  return { edit: { kind: 'spot.add', spaceId: space.id, index: space.spots.length, spot }, spotId: spot.id }
}

/** Takes places off, and the speakers that hang there off their lines. */
export function takeOff(job: Job, space: Space, spotIds: readonly string[]): Edit | null {
  const spots = space.spots.filter(s => spotIds.includes(s.id))
  const { edit } = removeEach(job, spots.flatMap(s => speakerAt(job, s)?.speaker.id ?? []))
  return together([...edit ? partsOf(edit) : [], ...spots.map((s): SimpleEdit => ({ kind: 'spot.remove', spaceId: space.id, spotId: s.id, was: s }))])
}

const toMm = (metres: number) => Math.round(metres * 1000) / 1000

/** Moves places by so much; those that would leave the floor stay. */
export function nudge(space: Space, spotIds: readonly string[], by: Place): Edit | null {
  return together(space.spots.filter(s => spotIds.includes(s.id)).flatMap((spot): SimpleEdit[] => {
    const to = { xM: toMm(spot.xM + by.xM), yM: toMm(spot.yM + by.yM) }
    if (!contains(space.outline, to)) return []
    return [{ kind: 'spot.set', spaceId: space.id, spotId: spot.id, ...setting<Spot, Place>(spot, to) }]
  }))
}

/** Sets height or aim of places. */
export function setSpots(space: Space, spotIds: readonly string[], to: Partial<Pick<Spot, 'heightM' | 'aim' | 'nodeId'>>): Edit | null {
  return together(space.spots.filter(s => spotIds.includes(s.id)).flatMap((spot): SimpleEdit[] => same({ ...spot, ...to }, spot)
    ? []
    : [{ kind: 'spot.set', spaceId: space.id, spotId: spot.id, ...setting<Spot, typeof to>(spot, to) }]))
}

/** Why a space cannot be hung on a line. */
export type NotHung = 'no-kind' | 'no-transformer' | 'no-line' | 'all-hang'
export const NOT_HUNG_WORDS: Record<NotHung, string> = {
  'no-kind': 'Choose the speaker of this space first.', 'no-transformer': 'This line wants a tap, and the speaker chosen has no line transformer.',
  'no-line': 'Say what the amplifier gives first: a line of 70 V is wired otherwise than one of 8 Ω.', 'all-hang': 'A speaker hangs at every place already.',
}

interface HangWith { tapW: number | null, cable: Cable | null, newId: NewId }
/** Where the speakers of a space go: a line that is there, an output more on an amplifier, or a new line of which only the volts are known yet. */
export type HangTo = { outputId: string } | { amplifierId: string } | { lineV: number }

/**
 * Hangs a speaker at every place of a space that has none: in an order that cable can follow, behind whatever hangs on the line already, with the lengths
 * along the walls and their slack. The first lead is from the rack where nothing hangs before it. One edit.
 * @param tapW the tap that they get, W
 */
export function hangSpace(job: Job, space: Space, to: HangTo, { tapW, cable, newId }: HangWith): { edit: Edit, outputId: string } | NotHung {
  const kind = kindOf(job, space)
  if (!kind) return 'no-kind'
  const free = space.spots.filter(s => speakerAt(job, s) === null)
  if (free.length === 0) return 'all-hang'
  const opened = openLine(job, space.name, to, newId)
  const edits = [...opened?.edits ?? []]
  const outputId = 'outputId' in to ? to.outputId : opened?.outputId ?? ''
  const output = findOutput(edits.reduce((j, e) => applyEdit(j, e).job, job), outputId)?.output
  if (!output || !isKnown(output.rating)) return 'no-line'
  const lineV = lineVoltsOf(output.rating)
  const load = loadOn(kind.model, lineV, tapW ?? space.tapW)
  if (load === null) return 'no-transformer'

  const last = speakersOf(output.wiring).at(-1)
  const before = last ? spotOf(job, last.id) : null
  // Behind a speaker of the same space the cable goes on from there; elsewhere it comes in where the plan says.
  const from = before?.space.id === space.id ? before.spot : space.entry
  const rackM = before?.space.id === space.id ? 0 : space.rackM
  const order = walkOrder(free, from)
  const lengths = leadLengthsM(free, order, { from, rackM, slack: space.slack })
  const ofLine = cable ?? cableOn(output.wiring)
  const taken = new Set(speakersOf(output.wiring).map(s => s.label))
  order.forEach((at, k) => {
    const label = freeLabel(taken)
    taken.add(label)
    const bare = { load, driverOhm: null }
    const speaker: Speaker = { kind: 'speaker', id: newId(), label, ...fieldsOf(kind.model, bare), load, kindId: kind.id, zoneId: null }
    const lengthM = lengths[k]
    const branch: Branch = { lead: lengthM === null || lengthM === undefined ? null : { cable: ofLine, lengthM }, node: speaker }
    const spot = free[at]!
    edits.push({ kind: 'node.add', parentId: output.wiring.id, index: output.wiring.children.length + k, branch })
    edits.push({ kind: 'spot.set', spaceId: space.id, spotId: spot.id, was: { nodeId: spot.nodeId }, to: { nodeId: speaker.id } })
  })
  return { edit: together(edits)!, outputId }
}

function openLine(job: Job, name: string, to: HangTo, newId: NewId): { edits: SimpleEdit[], outputId: string } | null {
  if ('outputId' in to) return null
  if ('amplifierId' in to) {
    const added = addOutput(job, to.amplifierId, newId)
    return added?.edit.kind === 'output.add' ? { edits: [{ ...added.edit, output: { ...added.edit.output, name } }], outputId: added.outputId } : null
  }
  const rating = { kind: 'constant-voltage' as const, lineV: to.lineV, powerW: null }
  // Beside other lines of which no more is known: what feeds them is chosen later.
  const beside = job.amplifiers.find(a => a.from === null && a.outputs.length > 0 && a.outputs.every(o => same(o.rating, rating)))
  if (beside) return openLine(job, name, { amplifierId: beside.id }, newId)
  const { edit } = addAmplifier(job, newId)
  if (edit.kind !== 'amplifier.add') return null
  const [output] = edit.amplifier.outputs
  return { edits: [{ ...edit, amplifier: { ...edit.amplifier, outputs: [{ ...output!, name, rating }] } }], outputId: output!.id }
}

/** What a model is on a line: tapped where the line has a voltage, else past its transformer; null where it cannot hang there. */
function loadOn(model: Parameters<typeof fieldsOf>[0], lineV: number | null, tapW: number | null): Speaker['load'] | null {
  if (lineV === null) {
    const { load } = fieldsOf(model, { load: { kind: 'nominal', nominalOhm: 8 }, driverOhm: null })
    return model.members || model.nominalOhm !== null ? load : null
  }
  if (model.scales.length === 0) return null
  const none = { kind: 'tap' as const, tapW: 0, ratedV: lineV, tapsW: [], insertionDb: null, tapMeans: null }
  const { load } = fieldsOf(model, { load: none, driverOhm: null })
  if (load.kind !== 'tap') return null
  const wanted = tapW !== null && load.tapsW.includes(tapW) ? tapW : Math.min(...load.tapsW)
  return { ...load, tapW: wanted }
}

/** Lengths along the walls again, for the speakers of a space that hang on leads of a known cable, or of the cable given. */
export function leadsAgain(job: Job, space: Space, cable: Cable | null): Edit | null {
  const spots = new Map(space.spots.flatMap(s => s.nodeId === null ? [] : [[s.nodeId, s] as const]))
  return together(outputsOf(job).flatMap(({ wiring }) => {
    let from: { place: Place, rackM: number | null } = { place: space.entry, rackM: space.rackM }
    return wiring.children.flatMap(({ lead, node }, k): SimpleEdit[] => {
      const spot = spots.get(node.id)
      if (!spot) return []
      const [lengthM] = leadLengthsM([spot], [0], { from: from.place, rackM: from.rackM, slack: space.slack })
      // What runs through other spaces before it is not on this plan.
      const isFirst = from.place === space.entry && k > 0
      from = { place: spot, rackM: 0 }
      if (isFirst || lengthM === null || lengthM === undefined || lead?.lengthM === lengthM) return []
      return [{ kind: 'lead.set', nodeId: node.id, was: lead, to: { cable: lead?.cable ?? cable, lengthM } }]
    })
  }))
}

/** The middle of a floor, or of what of it lies there: where something new is put. */
export function middleOf({ outline }: Pick<Space, 'outline'>): Place {
  const box = boxOf(outline)
  const middle = { xM: toMm(box.fromXM + box.lengthM / 2), yM: toMm(box.fromYM + box.widthM / 2) }
  if (contains(outline, middle)) return middle
  const [a, b, c] = [outline[0]!, outline[1]!, outline[2]!]
  const near = { xM: toMm((a.xM + b.xM + c.xM) / 3), yM: toMm((a.yM + b.yM + c.yM) / 3) }
  return contains(outline, near) ? near : { xM: a.xM, yM: a.yM }
}
