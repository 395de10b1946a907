import { writeCable, type Cable } from '#core/quantity/cable'
import { writeLength } from '#core/quantity/units'
import type { Edit, SimpleEdit } from './edits'
import { same } from '#core/quantity/same'
import { WHOLE, type Refusal } from './refusal'
import { EDIT_KINDS, ruleOf, SECTIONS } from './sections'

/** Sentences for refused edits and short names for edits, from the words of every section. Nothing else in the project words these. */

/** What the fields of the document are called. */
export const FIELD_WORDS: Record<string, string> = Object.assign({}, ...SECTIONS.map(s => s.fields))

/** Why an edit was not taken, and what stands there now. */
export function refusalWords(refusal: Refusal): string {
  switch (refusal.code) {
    case 'not-there': return `This ${refusal.what} is no longer there: it was removed in another window.`
    case 'already-there': return 'It is already there.'
    case 'inside-itself': return 'A group cannot be moved into itself.'
    case 'corrected-already': return 'This reading was corrected already: correct the newer one.'
    case 'too-many': return `There are ${refusal.most} ${refusal.what} already, as many as a job can hold.`
    case 'id-taken': return 'Another change was kept under the same number; this one was not taken. Do it once more.'
    case 'archived': return 'This job is archived. Bring it back first; then it takes changes again.'
    case 'too-large': return `This job is as large as a job can be (${refusal.most / 1e6} MB). Begin another for what comes next, or take out what is not needed.`
    case 'not-valid': return refusal.message
    case 'changed-meanwhile': {
      if (refusal.field === WHOLE) return `${refusal.what} is no longer as it was: ${changedOf(refusal.was as Fields, refusal.now as Fields)} in another window. Look at it before it goes.`
      const field = FIELD_WORDS[refusal.field] ?? refusal.field
      return `The ${field} of ${refusal.what} was changed in another window: it was ${valueWords(refusal.was)}, it is now ${valueWords(refusal.now)}.`
    }
  }
}

type Fields = Record<string, unknown>
/** What of a thing is otherwise than it was, the first of it. */
function changedOf(was: Fields, now: Fields): string {
  // Of a place on a rail: what hangs there, before the cable to it.
  if ('node' in now && !same(was.node, now.node)) return changedOf(was.node as Fields, now.node as Fields)
  const field = Object.keys(now).find(key => !same(was[key], now[key]))
  if (field === undefined || HANGING.has(field)) return 'what hangs on it was changed'
  const [word, value] = [FIELD_WORDS[field] ?? field, valueWords(now[field])]
  if (value !== OTHER) return `its ${word} became ${value}`
  return `its ${word} ${Array.isArray(now[field]) && word.endsWith('s') ? 'were' : 'was'} changed`
}
const HANGING: ReadonlySet<string> = new Set(['amplifiers', 'outputs', 'wiring', 'children'])
/** What is said of a value that has no few words. */
export const OTHER = 'something else'

export function valueWords(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'not stated'
  if (typeof value !== 'object') return `“${String(value)}”`
  const v = value as Record<string, unknown>
  if ('who' in v) return `“${String(v.name)}”`
  if ('tapW' in v) return v.tapW === 0 ? 'off' : `${v.tapW} W`
  if ('nominalOhm' in v) return `${v.nominalOhm} Ω`
  if ('cable' in v) return `${writeLength(v.lengthM as number)} of ${writeCable(v.cable as Cable | null)}`
  if ('lineV' in v && 'powerW' in v) return v.powerW === null ? `${v.lineV} V` : `${v.powerW} W at ${v.lineV} V`
  if ('points' in v) return (v.points as { loadOhm: number, powerW: number }[]).map(p => `${p.powerW} W at ${p.loadOhm} Ω`).join(', ')
  return OTHER
}

/** What leads in what is said of several edits, first things first. */
const LEADING = EDIT_KINDS
  .flatMap(kind => ruleOf({ kind }).leads === undefined ? [] : [{ kind, leads: ruleOf({ kind }).leads! }])
  .sort((a, b) => a.leads - b.leads).map(({ kind }) => kind)

/** The kind of its parts that an edit is called by; null where none leads. */
export function leadingOf(edit: Edit): SimpleEdit['kind'] | null {
  if (edit.kind !== 'batch') return edit.kind
  const kinds = edit.edits.map(e => e.kind)
  return LEADING.find(kind => kinds.includes(kind)) ?? (new Set(kinds).size === 1 ? kinds[0]! : null)
}

/** A short name for what an edit did: "speaker moved"; of several at once with their number: "speaker changed × 12". */
export function editWords(edit: Edit): string {
  if (edit.kind !== 'batch') return ruleOf(edit).words
  const kinds = edit.edits.map(e => e.kind)
  const together = SECTIONS.flatMap(section => section.ofBatch?.(kinds) ?? [])[0]
  if (together !== undefined) return together
  const leading = leadingOf(edit)
  if (leading === null) return 'change'
  const count = kinds.filter(kind => kind === leading).length
  return `${ruleOf({ kind: leading }).words}${count > 1 ? ` × ${count}` : ''}`
}
