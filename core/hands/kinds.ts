import type { SpeakerModel } from '#core/gear/speaker'
import { unstatedModel } from '#core/gear/models'
import { partsOf, setting, together, type Edit, type SimpleEdit } from '#core/job/edits'
import type { NewId } from './intents'
import type { Job, Kind, Speaker, SpeakerLoad } from '#core/job/schema'
import { same } from '#core/quantity/same'
import { allSpeakers, findPlace, findSpeaker } from '#core/job/tree'

/**
 * Kinds of speaker inside a job: what equals share is changed once, and all follow. A speaker has its own fields all the same, so
 * that everything that reads a line reads the speaker alone; what it has otherwise than its kind was set by hand, and stays.
 */

/** What a speaker takes from its kind. Its label, its place and the tap that it is set to are its own. */
export const FOLLOWED = ['name', 'load', 'continuousW', 'driverOhm'] as const
export type Followed = typeof FOLLOWED[number]
type FollowedFields = Pick<Speaker, Followed>

/** What is said of a field that a speaker has otherwise than its kind. */
export const FOLLOWED_WORDS: Record<Followed, string> = { name: 'what it is', load: 'its impedance or taps', continuousW: 'its rating', driverOhm: 'the driver behind the transformer' }

export function kindOf(job: Pick<Job, 'kinds'>, { kindId }: Pick<Speaker, 'kindId'>): Kind | null {
  return kindId === null ? null : job.kinds.find(k => k.id === kindId) ?? null
}

/** Every speaker of a kind, in wiring order. */
export function speakersOfKind(job: Job, kindId: string): Speaker[] {
  return allSpeakers(job).filter(s => s.kindId === kindId)
}

/** The rating that a model is counted with: the one that the person believes, where that is said. */
export function ratedWOf({ believedW, continuousW }: Pick<SpeakerModel, 'believedW' | 'continuousW'>): number | null {
  return believedW ?? continuousW
}

/** Whether somebody believes another rating than the sheet has. */
export const isBelieved = ({ believedW, continuousW }: Pick<SpeakerModel, 'believedW' | 'continuousW'>): boolean => believedW !== null && believedW !== continuousW

/** Whether a speaker's rating is the one that somebody believes, and what its sheet says instead; null where its sheet's own counts, or one set by hand. */
export function believedOf(kind: Kind | undefined, { continuousW }: Pick<Speaker, 'continuousW'>): { believedW: number, sheetW: number | null } | null {
  return kind && isBelieved(kind.model) && continuousW === kind.model.believedW ? { believedW: continuousW!, sheetW: kind.model.continuousW } : null
}

/** A model's load past any transformer, as far as it is stated. */
function plainLoadOf({ positions, members, smallSignal, curve, nominalOhm }: SpeakerModel, now: SpeakerLoad): SpeakerLoad | null {
  if (now.kind === 'coil') return now
  if (positions) return { kind: 'cabinet', at: now.kind === 'cabinet' ? Math.min(now.at, positions.length - 1) : 0, positions }
  if (members) return members
  if (nominalOhm === null) return null
  if (curve) return { kind: 'curve', nominalOhm, reOhm: smallSignal?.reOhm ?? null, points: curve }
  return smallSignal ? { kind: 'motional', nominalOhm, ...smallSignal } : { kind: 'nominal', nominalOhm }
}

/** Its transformer, with the scale that is nearest to a voltage, set to a tap, or to its lowest. */
function tapLoadOf({ scales, insertionDb, tapMeans }: SpeakerModel, ratedV: number, tapW?: number): SpeakerLoad | null {
  const off = (lineV: number) => Math.abs(Math.log(lineV / ratedV))
  const scale = [...scales].sort((a, b) => off(a.lineV) - off(b.lineV))[0]
  return scale ? { kind: 'tap', tapW: tapW ?? Math.min(...scale.tapsW), ratedV: scale.lineV, tapsW: scale.tapsW, insertionDb, tapMeans } : null
}

/** What a speaker of this model has, wired the way that `now` is; what the model does not state of its load stays. */
export function fieldsOf(model: SpeakerModel, now: Pick<Speaker, 'load' | 'driverOhm'>): FollowedFields {
  const load = (now.load.kind === 'tap' ? tapLoadOf(model, now.load.ratedV, now.load.tapW) : plainLoadOf(model, now.load)) ?? plainLoadOf(model, now.load) ?? now.load
  return { name: model.name, load, continuousW: ratedWOf(model), driverOhm: load.kind === 'tap' ? model.nominalOhm : now.driverOhm }
}

/** What a speaker has otherwise than its kind. */
export function byHand(speaker: Speaker, { model }: Kind): Followed[] {
  const kinds = fieldsOf(model, speaker)
  return FOLLOWED.filter(field => !same(field === 'load' ? withLossOf(speaker.load, kinds.load) : speaker[field], kinds[field]))
}

/** A loss that nobody stated at the speaker is not one set by hand: it was hung before its kind stated one. */
function withLossOf(load: SpeakerLoad, kinds: SpeakerLoad): SpeakerLoad {
  if (load.kind !== 'tap' || kinds.kind !== 'tap') return load
  return { ...load, insertionDb: load.insertionDb ?? kinds.insertionDb, tapMeans: load.tapMeans ?? kinds.tapMeans }
}

/** What a speaker says of itself, as a model: of all the rest nothing is stated. */
export function modelOf({ name, load, continuousW, driverOhm }: Speaker, fallback: string): SpeakerModel {
  const plain = unstatedModel('speaker', name.trim() === '' ? fallback : name)
  switch (load.kind) {
    case 'tap': return { ...plain, continuousW, nominalOhm: driverOhm, insertionDb: load.insertionDb, tapMeans: load.tapMeans, scales: load.tapsW.length > 0 ? [{ lineV: load.ratedV, tapsW: load.tapsW }] : [] }
    case 'members': return { ...plain, continuousW, members: load }
    case 'nominal': return { ...plain, continuousW, nominalOhm: load.nominalOhm }
    case 'curve': return { ...plain, continuousW, nominalOhm: load.nominalOhm, curve: load.points }
    case 'cabinet': return { ...plain, continuousW, positions: load.positions }
    case 'coil': return { ...plain, continuousW, members: { kind: 'members', joined: 'parallel', members: Array.from({ length: load.of }, () => load.coil) } }
    case 'motional': {
      const { kind: _, nominalOhm, ...smallSignal } = load
      return { ...plain, continuousW, nominalOhm, smallSignal }
    }
  }
}

function setFields(speaker: Speaker, to: Partial<Speaker>): SimpleEdit[] {
  const changed = Object.fromEntries(Object.entries(to).filter(([field, value]) => !same(speaker[field as keyof Speaker], value)))
  return Object.keys(changed).length === 0 ? [] : [{ kind: 'speaker.set', nodeId: speaker.id, ...setting<Speaker, Partial<Speaker>>(speaker, changed) } as SimpleEdit]
}

const found = (job: Job, ids: readonly string[]): Speaker[] => ids.flatMap(id => findSpeaker(job, id)?.speaker ?? [])

/** Makes one kind of these, after the first of them; what the others have otherwise stays and is marked. */
export function makeKind(job: Job, ids: readonly string[], fallback: string, newId: NewId): { edit: Edit, kindId: string } | null {
  const speakers = found(job, ids)
  const [first] = speakers
  if (!first) return null
  const item: Kind = { what: 'speaker', id: newId(), from: null, model: modelOf(first, fallback) }
  const add: SimpleEdit = { kind: 'kind.add', index: job.kinds.length, item }
  // A speaker without a name of its own takes the kind's: without it every one of them would differ.
  const named = speakers.flatMap(s => setFields(s, { kindId: item.id, ...(s.name.trim() === '' ? { name: item.model.name } : {}) }))
  return { edit: together([add, ...named])!, kindId: item.id }
}

/**
 * Makes these speakers of a kind, with all that it states; null takes them off theirs and leaves all else. On a distributed line
 * one that had no transformer gets the kind's, on its lowest tap; `lineV` is that line's.
 */
export function giveKind(job: Job, ids: readonly string[], kindId: string | null, lineVOf: (nodeId: string) => number | null): Edit | null {
  const kind = kindId === null ? null : job.kinds.find(k => k.id === kindId)
  if (kind === undefined) return null
  return together(found(job, ids).flatMap((speaker) => {
    if (!kind) return setFields(speaker, { kindId: null })
    const lineV = lineVOf(speaker.id)
    const wired = speaker.load.kind !== 'tap' && lineV !== null ? tapLoadOf(kind.model, lineV) : null
    return setFields(speaker, { kindId: kind.id, ...fieldsOf(kind.model, wired ? { ...speaker, load: wired } : speaker) })
  }))
}

/**
 * Makes these of a model of the library: of the job's own copy of that version where there is one, else of a new copy. One edit.
 */
export function giveModel(job: Job, ids: readonly string[], taken: LibraryModel, lineVOf: (nodeId: string) => number | null, newId: NewId): Edit | null {
  const { job: withKind, kindId, add } = kindOfModel(job, taken, newId)
  const given = giveKind(withKind, ids, kindId, lineVOf)
  return given && together([...add, ...partsOf(given)])
}

/** The job's own copy of that version of a model: where it has none, the edit that makes one. */
export function kindOfModel(job: Job, { modelId, version, model }: LibraryModel, newId: NewId): { job: Job, kindId: string, add: SimpleEdit[] } {
  const known = job.kinds.find(k => k.from?.modelId === modelId && k.from.version === version && same(k.model, model))
  if (known) return { job, kindId: known.id, add: [] }
  const item: Kind = { what: 'speaker', id: newId(), from: { modelId, version, passed: null }, model }
  return { job: { ...job, kinds: [...job.kinds, item] }, kindId: item.id, add: [{ kind: 'kind.add', index: job.kinds.length, item }] }
}
export interface LibraryModel { modelId: string, version: number, model: SpeakerModel }

/** Takes a newer version of its model: the kind is that now, and its speakers follow. */
export function takeVersion(job: Job, kindId: string, version: number, model: SpeakerModel): Edit | null {
  return changeKind(job, kindId, model, version)
}
/** Keeps the version that the job has; the newer one is not asked about again. */
export function passVersion(job: Job, kindId: string, version: number): Edit | null {
  const from = job.kinds.find(k => k.id === kindId)?.from
  return from ? { kind: 'kind.set', kindId, was: { from }, to: { from: { ...from, passed: version } } } : null
}

/** Changes a kind; its speakers follow in whatever they have not by hand. `version`: it is that of its model now. One edit. */
export function changeKind(job: Job, kindId: string, change: Partial<SpeakerModel>, version?: number): Edit | null {
  const kind = job.kinds.find(k => k.id === kindId)
  if (!kind) return null
  const model = { ...kind.model, ...change }
  const from = version !== undefined && kind.from ? { ...kind.from, version, passed: null } : kind.from
  if (same(model, kind.model) && same(from, kind.from)) return null
  const set: SimpleEdit = { kind: 'kind.set', kindId, ...setting<Pick<Kind, 'model' | 'from'>, Partial<Kind>>(kind, { model, ...(from === kind.from ? {} : { from }) }) }
  return together([set, ...speakersOfKind(job, kindId).flatMap((speaker) => {
    const own = new Set<Followed>(byHand(speaker, kind))
    const wanted = fieldsOf(model, speaker)
    return setFields(speaker, Object.fromEntries(FOLLOWED.filter(field => !own.has(field)).map(field => [field, wanted[field]])))
  })])
}

/** Takes back what was set by hand: these are as their kinds say again. */
export function asKind(job: Job, ids: readonly string[]): Edit | null {
  return together(found(job, ids).flatMap((speaker) => {
    const kind = kindOf(job, speaker)
    return kind ? setFields(speaker, fieldsOf(kind.model, speaker)) : []
  }))
}

/** Takes a kind out of the job: its speakers stay as they are, of no kind. */
export function removeKind(job: Job, kindId: string): Edit | null {
  const kind = job.kinds.find(k => k.id === kindId)
  if (!kind) return null
  return together([...speakersOfKind(job, kindId).flatMap(s => setFields(s, { kindId: null })), { kind: 'kind.remove', kindId, was: kind }])
}

/** Those of a speaker's job that are as it is in all that a kind holds, and of no kind yet; itself among them. */
export function equalsOf(job: Job, nodeId: string): string[] {
  const place = findPlace(job, nodeId)?.branch.node
  // One whose kind is gone (given up in another window) is of none.
  if (place?.kind !== 'speaker' || kindOf(job, place) !== null) return []
  const own = modelOf(place, '-')
  return allSpeakers(job).filter(s => kindOf(job, s) === null && same(modelOf(s, '-'), own)).map(s => s.id)
}
