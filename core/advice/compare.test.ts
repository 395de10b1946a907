import { runs } from '#core/testing/runs'
import { describe, expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import { retap } from '#core/hands/intents'
import { readJob } from '#core/job/readJob'
import { toDocument } from '#core/job/document'
import type { Job } from '#core/job/schema'
import { findOutput, outputsOf, speakersOf } from '#core/job/tree'
import { differsFrom, keepVariant, takeVariant, withVariant } from '#core/hands/variants'
import { editWords } from '#core/job/words'
import { randomEdit } from '#core/testing/edits'
import { cabled, counter, jobOf } from '#core/testing/jobs'
import { seeded } from '#core/testing/trees'
import { compareVariants, figuresOf, type Prices } from './compare'
import { compareRows, differsWords } from './compareWords'

const AT = '2026-05-04T09:30:00Z'
const line = cabled(jobOf('4 x 10 W on 70 V 60 W'), { cable: { awg: 16 }, lengthM: 10 })
const [a1] = line.amplifiers[0]!.outputs
const kept = (job: Job, name = 'Before') => applyEdit(job, keepVariant(job, name, AT, counter('v'))).job
const down = (job: Job) => ['o1n3', 'o1n4', 'o1n5', 'o1n6'].reduce((j, id) => {
  const edit = findOutput(j, 'out1') && retap(j, id, -1)
  return edit ? applyEdit(j, edit).job : j
}, job)
const none: Prices = { models: {}, cable: {} }

describe('a variant', () => {
  test('is the wiring as it was: gone over to by one edit, back by one; the same wiring is nothing to do', () => {
    const job = kept(line)
    expect(takeVariant(job, job.variants[0]!.id)).toBeNull()
    const changed = applyEdit(job, { kind: 'output.set', outputId: 'out1', was: { name: a1!.name }, to: { name: 'Hall' } }).job
    const edit = takeVariant(changed, job.variants[0]!.id)!
    const { job: back, inverse } = applyEdit(changed, edit)
    expect([back.amplifiers, editWords(edit)]).toEqual([line.amplifiers, 'wired as another variant'])
    expect(applyEdit(back, inverse).job).toEqual(changed)
    expect(takeVariant(job, 'x')).toBeNull()
  })

  test('jobs changed at random: whatever was done meanwhile, the wiring is that of the variant, and one undo brings the other back', () => {
    let taken = 0
    for (let seed = 1; seed <= runs(80); seed++) {
      const chance = seeded(seed)
      const id = counter('r')
      let job = kept(jobOf('5 x 10 W on 70 V', '8 || 8', '(8 + 8) || 4'))
      for (let k = 0; k < 12; k++) {
        const edit = randomEdit(job, chance, id)
        try {
          if (edit) job = applyEdit(job, edit).job
        }
        catch { /* it did not fit: the next one may */ }
      }
      const edit = takeVariant(job, job.variants[0]!.id)
      if (!edit) continue
      const { job: after, inverse } = applyEdit(job, edit)
      expect(after.amplifiers).toEqual(job.variants[0]!.amplifiers)
      expect(applyEdit(after, inverse).job).toEqual(job)
      expect(readJob(JSON.parse(JSON.stringify(toDocument(after)))).variants).toEqual(job.variants)
      taken++
    }
    expect(taken).toBeGreaterThan(runs(80) * 0.75)
  })

  test('amplifiers that are alike stay; kinds and zones that the job has no more are let go; three are the most; ids stand once', () => {
    const more = { ...line, amplifiers: [...line.amplifiers, { ...line.amplifiers[0]!, id: 'b', outputs: [] }], zones: [{ id: 'z', name: 'Z' }] }
    const zoned = applyEdit(more, { kind: 'speaker.set', nodeId: 'o1n3', was: { zoneId: null }, to: { zoneId: 'z' } }).job
    const job = { ...kept(zoned), zones: [], amplifiers: more.amplifiers }
    expect(takeVariant(job, 'v1')).toBeNull()
    const other = applyEdit(job, { kind: 'amplifier.set', amplifierId: 'amp', was: { name: 'Amplifier A' }, to: { name: 'Rack' } }).job
    expect((takeVariant(other, 'v1') as { edits: { kind: string }[] }).edits.map(e => e.kind)).toEqual(['amplifier.remove', 'amplifier.add'])
    const turned = { ...job, amplifiers: job.amplifiers.toReversed() }
    expect(applyEdit(turned, takeVariant(turned, 'v1')!).job.amplifiers.map(a => a.id)).toEqual(['amp', 'b'])
    const three = ['b', 'c'].reduce<Job>((j, name) => applyEdit(j, keepVariant(j, name, AT, counter(name))).job, job)
    expect(() => applyEdit(three, keepVariant(three, 'd', AT, counter('d')))).toThrow('too-many')
    expect(() => applyEdit(job, { ...keepVariant(job, 'd', AT, () => 'v1') })).toThrow('already-there')
    expect(() => applyEdit(job, { kind: 'variant.remove', variantId: 'x', was: null })).toThrow('not-there')
    const document = toDocument(three)
    const twice = { ...document, variants: [{ ...document.variants[0]!, amplifiers: [line.amplifiers[0]!, line.amplifiers[0]!] }] }
    expect(() => readJob(JSON.parse(JSON.stringify(twice)))).toThrow(/The id “amp” stands twice/)
    const renamed = applyEdit(three, { kind: 'variant.set', variantId: 'v1', was: { name: 'Before' }, to: { name: 'Old' } })
    expect([renamed.job.variants.map(v => v.name), applyEdit(renamed.job, renamed.inverse).job]).toEqual([['Old', 'b', 'c'], three])
    const gone = applyEdit(three, { kind: 'variant.remove', variantId: 'v1', was: null })
    expect([gone.job.variants.length, applyEdit(gone.job, gone.inverse).job]).toEqual([2, three])
  })
})

test('a variant of before: kinds and zones that are gone are let go; both above the target, neither is the better', () => {
  const named = applyEdit(line, { kind: 'speaker.set', nodeId: 'o1n3', was: { kindId: null, zoneId: null }, to: { kindId: 'gone', zoneId: 'gone' } }, 'taken').job
  const [first] = speakersOf(outputsOf(withVariant(line, { id: 'v', name: 'V', at: AT, amplifiers: named.amplifiers }))[0]!.wiring)
  expect([first!.kindId, first!.zoneId]).toEqual([null, null])
  const figures = figuresOf(line, none)
  const above = (overDb: number) => ({ id: null, name: '', differs: null, figures: { ...figures, quietest: { name: 'Hall', overDb } } })
  const row = (...dbs: number[]) => compareRows(dbs.map(above)).find(r => r.says === 'against the target')!
  expect([row(3, 1).cells, row(3, 1).better, row(0.02, -2).cells, row(0.02, -2).better]).toEqual([['3.0 dB above, Hall', '1.0 dB above, Hall'], [], ['just reached, Hall', '2.0 dB short, Hall'], [0]])
})

test('figures of a line by hand: 4 × 10 W of 60 W at four fifths leave 8 W, 20 W after a tap down leave 28 W; 40 m of cable are 44', () => {
  const job = kept(line)
  const figures = figuresOf(line, { models: {}, cable: { '16 AWG': 0.5 } })
  expect([figures.tightest, figures.lines, figures.quietest, figures.widest]).toEqual([{ label: 'A1', spareW: expect.closeTo(8, 6) }, { stop: 0, tight: 0, good: 1, unknown: 0 }, 'none', 'none'])
  // Speakers and amplifier have no price here, cable has: 44 m at 0.50.
  expect(figures.price).toEqual({ sum: 22, unpriced: 5, missing: 0 })
  const lower = down(job)
  const rows = compareRows(compareVariants(lower, none))
  expect(rows.map(r => [r.says, ...r.cells, r.better])).toEqual([
    ['lines', '1 good', '1 good', []], ['watts drawn', expect.stringMatching(/^(19|20)/), expect.stringMatching(/^3\d/), [0]], ['left by the reserve', '28 W on A1', '8 W on A1', [0]],
    ['lost in the wire', expect.stringMatching(/^0\.\d\d dB at A1 04$/), expect.stringMatching(/^0\.\d\d dB at A1 04$/), []], ['price', 'not known', 'not known', []],
  ])
  expect(differsWords(compareVariants(lower, none)[1]!.differs!)).toBe('4 taps otherwise')
})

test.each<[string, (job: Job) => Job, string]>([
  ['nothing', job => job, 'wired alike'],
  ['a speaker off', job => applyEdit(job, { kind: 'node.remove', nodeId: 'o1n3', was: null }).job, '1 speaker more'],
  ['a length', job => applyEdit(job, { kind: 'lead.set', nodeId: 'o1n3', was: { cable: { awg: 16 }, lengthM: 10 }, to: null }).job, '1 length of cable otherwise'],
  ['an amplifier off', job => applyEdit(job, { kind: 'amplifier.remove', amplifierId: 'amp', was: null }).job, '1 amplifier more, 4 speakers more'],
])('what differs after %s', (_, change, says) => {
  const changed = change(line)
  expect(differsWords(differsFrom(changed.amplifiers, line.amplifiers))).toBe(says)
})

test('what is known in part is not known', () => {
  const rows = (job: Job, prices = none) => compareRows(compareVariants(kept(job), prices)).map(r => [r.says, r.cells[0], r.better])
  expect(rows(jobOf('4 x 10 W on 70 V', '8 || 8'))).toEqual(expect.arrayContaining([['watts drawn', 'not known', []], ['left by the reserve', 'not known', []], ['lost in the wire', 'not known', []]]))
  expect(rows(applyEdit(line, { kind: 'lead.set', nodeId: 'o1n3', was: { cable: { awg: 16 }, lengthM: 10 }, to: null }).job, { models: {}, cable: { '16 AWG': 0.5 } }))
    .toEqual(expect.arrayContaining([['lost in the wire', 'not known', []], ['price', 'more than 16.50: 5 without a price, 1 length not stated', []]]))
  expect(rows(jobOf('8 || 8 on 100 W at 4')).map(r => r[0])).toEqual(['lines', 'watts drawn', 'lost in the wire', 'price'])
})
