import { expect, test } from '@jest/globals'
import { reading } from '#core/testing/edits'
import { jobOf, outputOf } from '#core/testing/jobs'
import type { Edit, SimpleEdit } from './edits'
import { nodeIds } from './tree'
import { correctedIds, documentParts, mentionedIds, touchedRows } from './parts'
import { UNSTATED_AMPLIFIER, UNSTATED_OUTPUT } from '#core/job/sections/wiring/schema'

const repair = { id: 'fix', at: '2026-05-04T09:00:00Z', outputId: 'out1', nodeId: 'o1n3', fault: 'open-at-drop' as const, note: '', withdrawn: false }
const { wiring } = outputOf(jobOf('8 + 8'))
const output = { id: 'new', label: 'B1', name: '', rating: { kind: 'not-known' as const }, ...UNSTATED_OUTPUT, wiring: { ...wiring, id: 'root' } }
const inside = nodeIds(wiring.children[0]!.node)
const PARTS: [SimpleEdit, { ids: string[], corrects: string[], rows: [string[], string[]], inDocument: boolean }][] = [
  [{ kind: 'reading.add', reading: reading('r1') }, { ids: ['r1'], corrects: [], rows: [['r1'], []], inDocument: false }],
  [{ kind: 'reading.add', reading: { ...reading('r2'), supersedes: 'r1' } }, { ids: ['r2'], corrects: ['r1'], rows: [['r2'], []], inDocument: false }],
  [{ kind: 'reading.withdraw', readingId: 'r3', withdrawn: true }, { ids: ['r3'], corrects: [], rows: [['r3'], []], inDocument: false }],
  [{ kind: 'repair.add', repair }, { ids: ['fix'], corrects: [], rows: [[], ['fix']], inDocument: false }],
  [{ kind: 'repair.withdraw', repairId: 'old', withdrawn: true }, { ids: ['old'], corrects: [], rows: [[], ['old']], inDocument: false }],
  [{ kind: 'node.add', parentId: 'p', index: 0, branch: wiring.children[0]! }, { ids: inside, corrects: [], rows: [[], []], inDocument: true }],
  [{ kind: 'output.add', amplifierId: 'amp', index: 0, output }, { ids: ['new', 'root', ...inside], corrects: [], rows: [[], []], inDocument: true }],
  [{ kind: 'amplifier.add', index: 0, amplifier: { id: 'amp2', name: 'B', place: '', ...UNSTATED_AMPLIFIER, outputs: [output] } }, { ids: ['amp2', 'new', 'root', ...inside], corrects: [], rows: [[], []], inDocument: true }],
  [{ kind: 'node.remove', nodeId: 'o1n3' }, { ids: [], corrects: [], rows: [[], []], inDocument: true }],
]

test.each(PARTS.map(([part, wanted]) => [part.kind, part, wanted] as const))('%s', (_, part, { ids, corrects, rows, inDocument }) => {
  expect(mentionedIds([part]).sort()).toEqual([...ids].sort())
  expect(correctedIds([part])).toEqual(corrects)
  const touched = touchedRows(part)
  expect([touched.readings, touched.repairs]).toEqual(rows)
  expect(documentParts(part)).toEqual(inDocument ? [part] : [])
})

test('of a batch, each of its parts, in order; an id named twice is named once', () => {
  const batch: Edit = { kind: 'batch', edits: PARTS.map(([part]) => part) }
  expect(documentParts(batch)).toEqual(PARTS.flatMap(([part, { inDocument }]) => inDocument ? [part] : []))
  expect(mentionedIds([batch, batch])).toEqual([...new Set(mentionedIds([batch]))])
  expect(correctedIds([batch, batch])).toEqual(['r1', 'r1'])
  expect(touchedRows(batch)).toEqual({ readings: ['r1', 'r2', 'r3'], repairs: ['fix', 'old'] })
})
