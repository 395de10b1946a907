import type { z } from 'zod'
import { unstatedOf, withUnstated } from '#core/quantity/unstated'
import { amplifierModelSchema, type AmplifierModel } from './amplifier'
import { cableModelSchema, type CableModel } from './cable'
import { controlModelSchema, type ControlModel } from './control'
import { metaOf, type FieldMeta } from './field'
import { harnessModelSchema, type HarnessModel } from './harness'
import { speakerModelSchema, type SpeakerModel } from './speaker'
import { transformerModelSchema, type TransformerModel } from './transformer'

/** What the library holds: a schema a kind of gear; types, columns, forms, messages and the JSON Schema come from it. */

export interface Models {
  speaker: SpeakerModel
  amplifier: AmplifierModel
  cable: CableModel
  control: ControlModel
  transformer: TransformerModel
  harness: HarnessModel
}
export type GearKind = keyof Models
export type Model = Models[GearKind]
export const GEAR_KINDS = ['speaker', 'amplifier', 'cable', 'control', 'transformer', 'harness'] as const satisfies readonly GearKind[]

export const MODEL_SCHEMAS = {
  speaker: speakerModelSchema, amplifier: amplifierModelSchema, cable: cableModelSchema, control: controlModelSchema, transformer: transformerModelSchema,
  harness: harnessModelSchema,
} as const

export const GEAR_WORDS: Record<GearKind, { one: string, many: string }> = {
  speaker: { one: 'speaker', many: 'Speakers' }, amplifier: { one: 'amplifier', many: 'Amplifiers' }, cable: { one: 'cable', many: 'Cable' },
  control: { one: 'control', many: 'Controls' }, transformer: { one: 'transformer', many: 'Transformers' },
  harness: { one: 'harness map', many: 'Harness maps' },
}

export interface Column extends FieldMeta { key: string, schema: z.ZodType }

/** The fields of a kind of gear in their order, which is the order of forms and of the columns of a file. */
export function columnsOf(kind: GearKind): readonly Column[] {
  return COLUMNS[kind]
}
const COLUMNS = Object.fromEntries(GEAR_KINDS.map(kind => [
  kind, Object.entries(MODEL_SCHEMAS[kind].shape as Record<string, z.ZodType>).map(([key, schema]) => ({ key, schema, ...metaOf(schema) })),
])) as unknown as Record<GearKind, readonly Column[]>

const FIRST_WAY = { name: 'first', terminals: null, pair: [{ base: 'red', stripe: '' }, { base: 'black', stripe: '' }] }

/** A model of which nothing is stated but its name; a cable is of a size, and a harness has a way, or it is none. */
export function unstatedModel<K extends GearKind>(kind: K, name: string): Models[K] {
  const empty = Object.fromEntries(columnsOf(kind).map(column => [column.key, unstatedOf(column.schema)]))
  return { ...empty, ...(kind === 'cable' ? { size: { awg: 16 } } : kind === 'harness' ? { ways: [FIRST_WAY] } : {}), name } as unknown as Models[K]
}

/**
 * A model as some version kept it, with the fields that it did not know yet: nothing is stated in them. Not checked: what is kept was
 * checked when it was taken.
 */
export function broughtUp<K extends GearKind>(kind: K, body: unknown): Models[K] {
  return withUnstated(MODEL_SCHEMAS[kind], body) as Models[K]
}

/** What a field of a model holds where a version did not know it; null also where it must be stated. */
export function unstatedField(kind: GearKind, key: string): unknown {
  return unstatedOf((MODEL_SCHEMAS[kind].shape as Record<string, z.ZodType>)[key]!) ?? null
}
