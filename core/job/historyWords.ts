import { isGroup } from '#core/network/tree'
import { same } from '#core/quantity/same'
import { writeLength, type Units } from '#core/quantity/units'
import { countOf, writeNumber } from '#core/quantity/write'
import { partsOf, type Edit, type SimpleEdit } from './edits'
import type { Job } from './schema'
import { ruleOf } from './sections'
import { WRITTEN_SHORT } from './sections/tickets/schema'
import { roomName } from './sections/shares/schema'
import { findOutput, findPlace } from './tree'
import { editWords, FIELD_WORDS, leadingOf, OTHER, valueWords } from './words'

/** What an edit did, with what it was done to and what it changed: "Dining: height 3 m → 3.2 m". For the list of what was done, undo and redo. */

type Fields = Record<string, unknown>
/** Which id of an edit names what it is about, the nearest first; what one of them is called. */
const ABOUT = [['spotId', 'place'], ['nodeId', 'speaker'], ['outputId', 'output'], ['amplifierId', 'amplifier'], ['zoneId', 'zone'], ['kindId', 'kind'], ['spaceId', 'space'], ['roomId', 'room']] as const
const MOST_NAMES = 3
const MOST_FIELDS = 3

/**
 * @param job the job that names are looked up in: a thing that is gone from it goes without one
 * @param units as the job says, unless a person reads otherwise
 * @returns words as short as can be; without any detail those of editWords
 */
export function historyWords(edit: Edit, job: Job | null, units: Units = job?.units ?? 'metric'): string {
  const words = editWords(edit)
  const all = partsOf(edit)
  const leading = leadingOf(edit)
  const parts = leading === null ? [] : all.filter(part => part.kind === leading)
  // What none of its parts leads, and a sentence of a section's own, is said as it is.
  if (parts.length === 0) return words
  const names = namesOf(parts, job)
  const about = ABOUT.find(([key]) => key in parts[0]!)
  // What is gone from the job since is counted by its ids.
  const count = names.length > 0 || !about ? names.length : new Set(parts.map(part => (part as unknown as Fields)[about[0]])).size
  const isMany = names.length === 0 || names.length > MOST_NAMES
  const subject = count === 0 ? '' : isMany ? countOf(count, about?.[1] ?? 'thing') : names.join(', ')
  const changes = parts[0]!.kind.endsWith('.set') ? changesOf(parts, units) : null
  // The job and its rules are named by what they are.
  if (changes !== null && subject === '' && !about) return `${words}: ${changes}`
  if (changes !== null && subject !== '') return `${subject}: ${changes}`
  return subject === '' || isMany ? words : `${ruleOf(parts[0]!).words}: ${subject}`
}

const namesOf = (parts: readonly SimpleEdit[], job: Job | null): string[] => [...new Set(parts.map(part => nameOf(part, job)).filter(name => name !== ''))]

/** What it brings in or takes away bears its name; of anything else the job knows it. */
function nameOf(part: SimpleEdit, job: Job | null): string {
  const fields = part as unknown as Fields
  if (part.kind === 'ticket.write') return WRITTEN_SHORT[part.entry.what.is]
  const keys = ['amplifier', 'output', 'branch', 'space', 'zone', 'item', 'variant', ...part.kind.endsWith('.remove') ? ['was'] : []]
  const embedded = keys.map(key => fields[key]).find(Boolean) as Fields | undefined
  if (embedded) return nameOfThing(embedded)
  // What was read or mended says where.
  const of = (fields.reading ?? fields.repair ?? fields) as Fields
  const about = ABOUT.find(([key]) => typeof of[key] === 'string')
  return about && job ? nameIn(job, about[0], of) : ''
}

function nameOfThing(thing: Fields): string {
  if ('node' in thing) return nameOfThing(thing.node as Fields)
  if ('through' in thing && thing.through) return String((thing.through as Fields).label)
  if ('model' in thing) return String((thing.model as Fields).name)
  return [thing.label, thing.name].filter(text => typeof text === 'string' && text !== '').slice(0, 1).join('')
}

function nameIn(job: Job, key: typeof ABOUT[number][0], fields: Fields): string {
  const id = fields[key] as string
  switch (key) {
    case 'nodeId': {
      const place = findPlace(job, id)
      if (!place) return ''
      const { node } = place.branch
      return `${place.output.label} ${isGroup(node) ? node.through?.label ?? 'a group' : node.label}`
    }
    case 'outputId': {
      const output = findOutput(job, id)?.output
      return output ? `${output.label} ${output.name}`.trim() : ''
    }
    case 'amplifierId': return job.amplifiers.find(a => a.id === id)?.name ?? ''
    case 'zoneId': return job.zones.find(z => z.id === id)?.name ?? ''
    case 'kindId': return job.kinds.find(k => k.id === id)?.model.name ?? ''
    case 'roomId': return roomName(job, id)
    case 'spotId':
    case 'spaceId': return job.spaces.find(s => s.id === fields.spaceId)?.name ?? ''
  }
}

/** "height 3 m → 3.2 m, use changed"; null where its fields do not say what they were. What differs between several is left out. */
function changesOf(parts: readonly SimpleEdit[], units: Units): string | null {
  const sets = parts.map(part => halvesOf(part))
  const fields = [...new Set(sets.flatMap(({ to }) => Object.keys(to)))]
  // A place is two figures: that it moved says more.
  if (fields.length === 0 || fields.includes('xM')) return null
  const said = fields.slice(0, MOST_FIELDS).map((field) => {
    const word = FIELD_WORDS[field] ?? field
    const [was, to] = (['was', 'to'] as const).map((half) => {
      const values = sets.map(set => set[half][field])
      return values.every(value => same(value, values[0])) ? fieldWords(field, values[0], units) : null
    })
    if (to == null || to === was) return `${word} changed`
    return was == null ? `${word} → ${to}` : `${word} ${was} → ${to}`
  })
  return [...new Set(said), ...fields.length > MOST_FIELDS ? [`${fields.length - MOST_FIELDS} more`] : []].join(', ')
}

/** Edits of one field are without a set of them: its name is the thing that is set. */
function halvesOf(part: SimpleEdit): { was: Fields, to: Fields } {
  const { kind, was, to } = part as unknown as { kind: string, was: Fields, to: Fields }
  const [field] = kind.split('.') as [string]
  return ['lead', 'through'].includes(field) ? { was: { [field]: was }, to: { [field]: to } } : { was, to }
}

const UNIT_OF: readonly [ending: RegExp, unit: string][] = [[/W$/, 'W'], [/Ohm$/, 'Ω'], [/V$/, 'V'], [/Db$|^db$/, 'dB'], [/Hz$/, 'Hz'], [/Deg$/, '°']]
/** Fields whose words a person typed: they stand as they are. */
const TYPED = new Set(['name', 'label', 'place', 'floor', 'cableRemark', 'note', 'source'])
/** A value in the unit that its field's name ends with; null where it is not to be said in a few words. */
function fieldWords(field: string, value: unknown, units: Units): string | null {
  if (typeof value === 'number') {
    if (/M$/.test(field)) return writeLength(value, units)
    const unit = UNIT_OF.find(([ending]) => ending.test(field))?.[1]
    return unit === '°' ? `${writeNumber(value, 4)}°` : `${writeNumber(value, 4)}${unit ? ` ${unit}` : ''}`
  }
  if (typeof value === 'string' && value !== '' && !TYPED.has(field)) return /Id$/.test(field) ? null : value.replaceAll('-', ' ')
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (field === 'sharer') return value === null ? 'nobody' : String((value as Fields).name)
  if (field === 'through') return value === null ? 'none' : String((value as Fields).label)
  if ((value as Fields | null)?.kind === 'not-known') return 'not known'
  const words = valueWords(value)
  return words === OTHER ? null : words
}
