import { FORMAT_NAME, FORMAT_VERSION } from './schema'
import { JobError } from './jobError'
import { supersedeOnce } from './upgrades/from1'
import { moreFaults } from './upgrades/from2'
import { howItWasTaken } from './upgrades/from3'
import { kindsOfSpeakers } from './upgrades/from4'
import { lossesNotStated } from './upgrades/from5'
import { noSpaces } from './upgrades/from6'
import { oneChannel } from './upgrades/from7'
import { everythingPlayed } from './upgrades/from8'
import type { Fields, Upgrade } from './upgrades/step'

/**
 * Documents and edits that an older version wrote, in files, in the database and in a browser's storage, brought up to
 * this one. A change of the document, of an edit, or of the values of an enum is a step here.
 */

/** Steps by the version that they start from. */
const UPGRADES: Record<number, Upgrade> = {
  1: { document: supersedeOnce, edit: edit => edit },
  2: moreFaults,
  3: howItWasTaken,
  4: kindsOfSpeakers,
  5: lossesNotStated,
  6: noSpaces,
  7: oneChannel,
  8: everythingPlayed,
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
  let document = data
  const remarks: string[] = []
  for (let step = UPGRADES[Number(document.version)]; step; step = UPGRADES[Number(document.version)]) {
    const next = step.document(document)
    document = { ...next.document, version: Number(document.version) + 1 }
    remarks.push(...next.remarks)
  }
  return { data: document, remarks }
}

/** An edit as this version writes it. Not checked: what is stored was checked when it was taken, what is read elsewhere is parsed next. */
export function upgradedEdit(edit: unknown, version: number): unknown {
  let current = edit
  for (let v = version; v < FORMAT_VERSION && isFields(current); v++) current = UPGRADES[v]!.edit(current)
  return current
}
