import type { Fields, Upgrade } from './step'

/**
 * Version 3 heard a speaker as playing or silent, and did not say who read what with which meter. Version 4 knows more sounds, and a
 * reading says how it was taken (`taken`, null where nobody said). All that version 3 wrote stands as it is.
 */
export const howItWasTaken: Upgrade = {
  document: document => ({ document: Array.isArray(document.readings) ? { ...document, readings: document.readings.map(withTaken) } : document, remarks: [] }),
  edit: (edit) => {
    if (edit.kind === 'reading.add') return { ...edit, reading: withTaken(edit.reading) }
    return edit.kind === 'batch' && Array.isArray(edit.edits) ? { ...edit, edits: edit.edits.map(part => howItWasTaken.edit(part as Fields)) } : edit
  },
}

function withTaken(reading: unknown): unknown {
  return reading !== null && typeof reading === 'object' && !('taken' in reading) ? { ...reading, taken: null } : reading
}
