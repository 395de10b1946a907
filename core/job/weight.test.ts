import { expect, test } from '@jest/globals'
import { writeDocument, writeJobFile, readJobFile } from '#core/format/plainMatch'
import { compositeEdit, randomEdit, reading } from '#core/testing/edits'
import { everyEdit } from '#core/testing/everyEdit'
import { counter, jobOf } from '#core/testing/jobs'
import { seeded } from '#core/testing/trees'
import { applyEdit } from './apply'
import { toDocument } from './document'
import type { Edit, StampedEdit } from './edits'
import { takeInSteps } from './ledger'
import type { Job } from './schema'
import { bytesAddedBy, bytesOfText, MOST_BYTES } from './weight'

const bytesOf = (job: Job) => bytesOfText(JSON.stringify(toDocument(job)))

test('bytes of a text are never told too few', () => {
  for (const text of ['plain', 'Grüße', '電', '🔊', '']) {
    expect(bytesOfText(text)).toBeGreaterThanOrEqual(Buffer.byteLength(text))
    expect(bytesOfText(text)).toBeLessThanOrEqual(3 * text.length)
  }
})

test('whatever edits of every section make goes out and comes in, and grows by no more than was counted (seeds 1 to 60)', () => {
  for (let seed = 1; seed <= 60; seed++) {
    const chance = seeded(seed)
    const newId = counter(`w${seed}x`)
    let job: Job = jobOf('3 x 10 W on 70 V 100 W', '(8 + 8) || 8 on 100 W at 4')
    const every = everyEdit(job)
    for (let turn = 0; turn < 40; turn++) {
      const edit: Edit | null = turn < every.length ? every[turn]! : chance() < 0.3 ? compositeEdit(job, chance, newId) : randomEdit(job, chance, newId)
      if (!edit) continue
      const { job: after, inverse } = applyEdit(job, edit)
      const [grown, back] = [bytesOf(after) - bytesOf(job), bytesOf(applyEdit(after, inverse, 'undo').job) - bytesOf(after)]
      expect([seed, turn, edit.kind, grown <= bytesAddedBy(edit), back <= bytesAddedBy(inverse)]).toEqual([seed, turn, edit.kind, true, true])
      job = after
    }
    expect(readJobFile(writeJobFile(job)).job).toEqual(job)
  }
})

test('a job is full: what adds is refused with its reason, what takes away and what is taken back is not', () => {
  const job = jobOf('2 x 10 W on 70 V 100 W')
  const [output] = job.amplifiers[0]!.outputs
  const stamp = (id: string, edit: Edit, undoes: string | null = null): StampedEdit => ({ id, by: 'w', who: null, undoes, edit })
  const note = (id: string): Edit => ({ kind: 'reading.add', reading: { ...reading(id), note: 'x'.repeat(2000) } })
  const gone: Edit = { kind: 'output.remove', outputId: output!.id, was: output! }
  const { inverse } = applyEdit(job, gone)
  const steps = takeInSteps(job, [stamp('a', note('r1')), stamp('b', note('r2')), stamp('c', gone), stamp('d', inverse, 'c')], new Map(), false, bytesAddedBy(note('r1')) + 100)
  let step = steps.next()
  while (!step.done) step = steps.next()
  expect(step.value.outcomes.map(o => o.status === 'refused' ? o.refusal : o.status)).toEqual(['applied', { code: 'too-large', most: MOST_BYTES }, 'applied', 'applied'])
  // What is taken back weighs more than there was room for.
  expect(bytesAddedBy(inverse)).toBeGreaterThan(100)
  for (const [room, status] of [[bytesAddedBy(note('r1')), 'applied'], [bytesAddedBy(note('r1')) - 1, 'refused']] as const) {
    expect(takeInSteps(job, [stamp('a', note('r1'))], new Map(), false, room).next()).toMatchObject(status === 'applied' ? { done: false } : { done: true, value: { outcomes: [{ status }] } })
  }
  // Gone over to a wiring as large as the one that goes, a job weighs what it did; of what is not said to go nothing is known.
  const [amplifier] = job.amplifiers
  const swapped = (was: typeof amplifier | null): Edit => ({ kind: 'batch', edits: [{ kind: 'amplifier.remove', amplifierId: 'amp', was: was ?? null }, { kind: 'amplifier.add', index: 0, amplifier: amplifier! }] })
  expect([bytesAddedBy(swapped(amplifier!)) < 100, bytesAddedBy(swapped(null)) > 500, bytesAddedBy(gone)]).toEqual([true, true, 0])
})

test('a large file is written without setting its lines in: it stays as large as it was counted', () => {
  const job = jobOf('2 x 10 W on 70 V 100 W')
  const document = { ...toDocument(job), readings: Array.from({ length: 3000 }, (_, k) => ({ ...reading(`r${k}`), note: 'x'.repeat(1500) })) }
  expect(bytesOfText(writeDocument(document))).toBe(bytesOfText(JSON.stringify(document)) + 1)
  expect(writeJobFile(job).split('\n').length).toBeGreaterThan(100)
})
