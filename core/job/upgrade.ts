import { withUnstated } from '#core/quantity/unstated'
import { editSchema, stampedEditSchema } from './edits'
import { JobError } from './jobError'
import { FORMAT_NAME, FORMAT_VERSION, jobSchema } from './schema'
import { supersedeOnce } from './upgrades/from1'
import { asksForPolarity } from './upgrades/from14'
import { inputsOfAmplifiers } from './upgrades/from15'
import { oneChannel } from './upgrades/from7'
import type { Fields, Upgrade } from './upgrades/step'

/**
 * Documents and edits that an older version wrote, in files, in the database and in a browser's storage, brought up to
 * this one. A change of the document, of an edit, or of the values of an enum is a line here.
 *
 * A version that only widens an enum, or adds fields of which older ones stated nothing, is a sentence: what is missing is filled by
 * the schema (quantity/unstated.ts). Code is for what must be made of what was there. Steps stand by the version that they start from.
 */
const STEPS: Record<number, Upgrade | string> = {
  1: { document: supersedeOnce, edit: edit => edit },
  2: 'more kinds of fault; a repair of a whole line',
  3: 'more sounds; how a reading was taken',
  4: 'kinds of speaker: none of those that stand is of one',
  5: 'zones, losses, controls and transformers, the high-pass of an amplifier: nothing is stated',
  6: 'spaces and variants: there are none',
  7: oneChannel,
  8: 'what an output plays, its limiter, what feeds an amplifier, magnets: nothing is stated',
  9: 'who edited, read and repaired: nobody had signed in',
  10: 'the frequency at which an impedance was read: not stated; a length of cable may be of no stated size',
  11: 'what a space, a place, a measured level, a kind, a zone or a variant was that is taken away: not said',
  12: 'one more use of a space: sound masking',
  13: 'the units that a job is spoken of in: not stated, each person reads it in their own',
  14: asksForPolarity,
  15: inputsOfAmplifiers,
  16: 'who walks which room: the walk is shared out with nobody',
  17: 'more kinds of fault: what was repaired stays what it was called',
  18: 'two more kinds of reading: what was seen at a place, and what followed a unit; nobody had read them',
  19: 'the bench: a drawer and tickets; a job has neither',
  20: 'holes, plus mark and tabs of a unit on the bench: nobody had written them down',
}

function isFields(data: unknown): data is Fields {
  return data !== null && typeof data === 'object' && !Array.isArray(data)
}

/** @throws JobError for a version that this program does not know yet */
export function upgradedDocument(data: unknown): { data: unknown, remarks: string[] } {
  if (!isFields(data) || data.format !== FORMAT_NAME) return { data, remarks: [] }
  if (typeof data.version === 'number' && data.version > FORMAT_VERSION) {
    throw new JobError(`The file is of version ${data.version}; this program knows versions up to ${FORMAT_VERSION}. Use a newer program.`, 'version', [`${FORMAT_VERSION}`])
  }
  const from = Number(data.version)
  if (STEPS[from] === undefined) return { data, remarks: [] }
  let document = data
  const remarks: string[] = []
  for (let version = from; version < FORMAT_VERSION; version++) {
    const step = STEPS[version]!
    if (typeof step === 'string') continue
    const next = step.document(document)
    document = next.document
    remarks.push(...next.remarks)
  }
  return { data: withUnstated(jobSchema, { ...document, version: FORMAT_VERSION }), remarks }
}

/** An edit as this version writes it. Not checked: what is stored was checked when it was taken, what is read elsewhere is parsed next. */
export function upgradedEdit(edit: unknown, version: number): unknown {
  if (version >= FORMAT_VERSION || !isFields(edit)) return edit
  let current = edit
  for (let v = version; v < FORMAT_VERSION; v++) {
    const step = STEPS[v]!
    if (typeof step !== 'string') current = step.edit(current)
  }
  return withUnstated(editSchema, current)
}

/** The same with its stamp: as it waits on a device, or as a page of an older version sends it. */
export function upgradedStamped(stamped: unknown, version: number): unknown {
  if (version >= FORMAT_VERSION || !isFields(stamped) || !isFields(stamped.edit)) return stamped
  return withUnstated(stampedEditSchema, { ...stamped, edit: upgradedEdit(stamped.edit, version) })
}
