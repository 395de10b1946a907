import { partsOf, type Edit, type SimpleEdit } from './edits'
import { SECTIONS } from './sections'
import { nodeIds, outputIds } from './tree'

/** What an edit touches, for whoever keeps the document and the rows apart. */

const IN_ROWS = new Set<string>(SECTIONS.filter(s => s.keeps === 'rows').flatMap(s => Object.keys(s.apply)))

/** The parts of an edit that change the document; those that only add to rows are left out. */
export function documentParts(edit: Edit): SimpleEdit[] {
  return partsOf(edit).filter(part => !IN_ROWS.has(part.kind))
}

/** Ids of every reading and repair that taking these edits in needs to know of: named by them, or perhaps met by their new ids. */
export function mentionedIds(edits: readonly Edit[]): string[] {
  return [...new Set(edits.flatMap(edit => partsOf(edit).flatMap(idsOf)))]
}

function idsOf(part: SimpleEdit): string[] {
  switch (part.kind) {
    case 'reading.add': return [part.reading.id]
    case 'reading.withdraw': return [part.readingId]
    case 'repair.add': return [part.repair.id]
    case 'repair.withdraw': return [part.repairId]
    case 'kind.add': return [part.item.id]
    case 'zone.add': return [part.zone.id]
    case 'amplifier.add': return [part.amplifier.id, ...part.amplifier.outputs.flatMap(outputIds)]
    case 'output.add': return outputIds(part.output)
    case 'node.add': return nodeIds(part.branch.node)
    default: return []
  }
}

/** Ids of readings that these edits say were wrong. */
export function correctedIds(edits: readonly Edit[]): string[] {
  return edits.flatMap(edit => partsOf(edit).flatMap(part => part.kind === 'reading.add' && part.reading.supersedes !== null ? [part.reading.supersedes] : []))
}

/** Ids of the readings and repairs that an edit adds or changes, in order. */
export function touchedRows(edit: Edit): { readings: string[], repairs: string[] } {
  const readings: string[] = []
  const repairs: string[] = []
  for (const part of partsOf(edit)) {
    if (part.kind === 'reading.add') readings.push(part.reading.id)
    else if (part.kind === 'reading.withdraw') readings.push(part.readingId)
    else if (part.kind === 'repair.add') repairs.push(part.repair.id)
    else if (part.kind === 'repair.withdraw') repairs.push(part.repairId)
  }
  return { readings, repairs }
}
