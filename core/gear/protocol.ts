import type { GearKind, Model } from './models'

/** What the library's server and its pages say to each other. */

/** Fields of each kind that a table shows and is searched by, the name first. */
export const LIST_KEYS: Record<GearKind, readonly string[]> = {
  speaker: ['name', 'build', 'nominalOhm', 'continuousW', 'believedW', 'sensitivityDb', 'coverageDeg', 'scales', 'price', 'purpose'],
  amplifier: ['name', 'outputs', 'inputs', 'zones', 'rackUnits', 'price', 'purpose'],
  cable: ['name', 'size', 'conductors', 'listing', 'price'],
  control: ['name', 'ratingW', 'linesV', 'insertionDb', 'priorityRelay', 'price'],
  transformer: ['name', 'ratingW', 'scales', 'secondariesOhm', 'insertionDb', 'price'],
  harness: ['name', 'purpose', 'ways'],
}

/** A model in a table: the newest version's listed fields in the order of LIST_KEYS. */
export interface GearRow { id: string, version: number, isRetired: boolean, usedIn: number, values: unknown[] }

/** The newest version of a model that is offered, for what searches among all of them. */
export interface GearWhole { id: string, version: number, body: Model }

export interface GearModel {
  id: string
  kind: GearKind
  isRetired: boolean
  /** Newest first. */
  versions: { version: number, at: string, body: Model }[]
  usedIn: { jobId: string, name: string, version: number }[]
}

/** Models of one request. */
export const MOST_MODELS = 10_000

/** What became of an act. */
export type GearAnswer = { status: 'done' } | { status: 'refused', code: 'changed-meanwhile' | 'not-there', message: string }
