import type { AmplifierModel } from '#core/gear/amplifier'
import { SOURCE_KINDS, type SourceKind } from '#core/gear/inputs'
import type { Row } from './lp'

/**
 * Inputs and zones that a set of amplifiers has to have together: what feeds several units is linked from the one that takes it. What a model does not state
 * counts for nothing.
 */
export interface Wanted { inputs: Readonly<Record<SourceKind, number>>, zones: number }
export const NOTHING_WANTED: Wanted = { inputs: { microphone: 0, media: 0, line: 0 }, zones: 0 }
export const isWanted = ({ inputs, zones }: Wanted): boolean => zones > 0 || SOURCE_KINDS.some(kind => inputs[kind] > 0)

type Stated = Pick<AmplifierModel, 'inputs' | 'zones'>

/** Every way to choose some of the kinds: so many sources of these need so many inputs that take one of them, and then each has one. Source: Hall, 1935. */
const SOME_KINDS = Array.from({ length: 2 ** SOURCE_KINDS.length - 1 }, (_, k) => SOURCE_KINDS.filter((_, bit) => ((k + 1) >> bit) & 1))
const takeOne = ({ inputs }: Stated, kinds: readonly SourceKind[]): number =>
  inputs.reduce((n, { count, takes }) => takes.some(kind => kinds.includes(kind)) ? n + count : n, 0)

/** @param unit the variable that counts units of the model at that place */
export function wantedRows({ inputs, zones }: Wanted, models: readonly Stated[], unit: (m: number) => string): Row[] {
  const atLeast = (name: string, has: (model: Stated) => number, asked: number): Row[] =>
    asked === 0 ? [] : [{ name, sum: new Map(models.map((model, m) => [unit(m), -has(model)])), is: '<=', value: -asked }]
  return [
    ...SOME_KINDS.flatMap(kinds =>
      atLeast(`in_${kinds.map(k => k.slice(0, 2)).join('_')}`, model => takeOne(model, kinds), kinds.reduce((n, kind) => n + inputs[kind], 0))),
    ...atLeast('zones', model => model.zones ?? 0, zones),
  ]
}

/** Whether something is wanted that none of these has: no number of them does it. */
export const isHopeless = (wanted: Wanted, models: readonly Stated[]): boolean =>
  wantedRows(wanted, models, String).some(({ sum }) => [...sum.values()].every(has => has === 0))

/** At least as many inputs of every kind, and zones, as another. */
export const hasAll = (one: Stated, other: Stated): boolean =>
  SOME_KINDS.every(kinds => takeOne(one, kinds) >= takeOne(other, kinds)) && (one.zones ?? 0) >= (other.zones ?? 0)

const ONE: Record<SourceKind, [string, string]> = { microphone: ['microphone', 'microphones'], media: ['music player', 'music players'], line: ['line', 'lines'] }
/** "inputs for 2 microphones and 1 music player, 3 zones". */
export function wantedWords({ inputs, zones }: Wanted): string {
  const kinds = SOURCE_KINDS.filter(kind => inputs[kind] > 0).map(kind => `${inputs[kind]} ${ONE[kind][inputs[kind] === 1 ? 0 : 1]}`)
  return [kinds.length > 0 ? `inputs for ${kinds.join(' and ')}` : '', zones > 0 ? `${zones} ${zones === 1 ? 'zone' : 'zones'}` : ''].filter(Boolean).join(', ')
}
