import { runs } from '#core/testing/runs'
import { same } from '#core/quantity/same'
import { describe, expect, test } from '@jest/globals'
import { cabled, counter, jobOf, outputOf } from '#core/testing/jobs'
import { isTaken, randomEdit } from '#core/testing/edits'
import { seeded } from '#core/testing/trees'
import { applyEdit } from '#core/job/apply'
import { partsOf, type Edit } from '#core/job/edits'
import { joinWithNext } from '../intents'
import type { Branch, Job, WireNode } from '#core/job/schema'
import { outputsOf, speakersOf, placeOf } from '#core/job/tree'
import { addLike, cableEach, copyEach, joinEach, lengthsEach, moveEach, moveToNew, relabelEach, removeEach, retapEach, setEach, skippedWords, tapEach, wholeNodes, type ManyDone } from './many'
import { countedOn } from './numbering'

/** A line in small: labels with their taps, groups in brackets, the length of a lead behind. */
function drawn(job: Job, k = 0): string {
  const figure = (node: WireNode): string => node.kind === 'speaker' && node.load.kind === 'tap' ? `:${node.load.tapW}` : ''
  const text = ({ node, lead }: Branch): string => `${node.kind === 'speaker' ? node.label + figure(node) : `${node.kind}(${node.children.map(text).join(' ')})`}${lead ? `@${lead.lengthM}` : ''}`
  return outputOf(job, k).wiring.children.map(text).join(' ')
}
const newId = () => counter('m')
const awg = { awg: 16 }
const job = cabled(jobOf('4 x 10 W on 70 V 100 W', '8 || 8', '5 W on 70 V'), { cable: awg, lengthM: 5 })
const [a, b, c, d] = speakersOf(outputOf(job).wiring).map(s => s.id) as [string, string, string, string]
const plain = speakersOf(outputOf(job, 1).wiring).map(s => s.id)
const series = applyEdit(job, joinWithNext(job, b, 'series', counter('s'))!).job
const done = ({ edit, skipped }: ManyDone, on = job, k = 0) => `${edit ? drawn(applyEdit(on, edit).job, k) : 'nothing'}${skipped.length > 0 ? ` | ${skippedWords(skipped)}` : ''}`

describe('what a hand means with several', () => {
  test.each<[string, () => string, string]>([
    ['each a tap down', () => done(retapEach(job, [a, c], -1)), '01:5@5 02:10@5 03:5@5 04:10@5'],
    ['a tap up where there is a transformer', () => done(retapEach(job, [d, plain[0]!], 1)), '01:10@5 02:10@5 03:10@5 04:20@5 | 01: no line transformer'],
    ['none further', () => done(retapEach(applyEdit(job, tapEach(job, [a], 30).edit!).job, [a], 1)), 'nothing | 01: no tap further'],
    ['all to one tap, who has it', () => done(tapEach(job, [a, b, plain[1]!], 20)), '01:20@5 02:20@5 03:10@5 04:10@5 | 02: no line transformer'],
    ['a tap that is not there', () => done(tapEach(job, [a, b], 7)), 'nothing | 01, 02: no such tap'],
    ['off is always there', () => done(tapEach(job, [b], 0)), '01:10@5 02:0@5 03:10@5 04:10@5'],
    ['what stands so already is no edit', () => done(tapEach(job, [a], 10)), 'nothing'],
    ['what is gone', () => done(tapEach(job, ['gone'], 10)), 'nothing | ?: no longer there'],
    ['lengths, the last one holds on', () => done(lengthsEach(job, [a, b, c], [20, 6], awg)), '01:10@20 02:10@6 03:10@6 04:10@5'],
    ['a length where none was stated', () => done(lengthsEach(series, [b, c], [3], awg), series), '01:10@5 series(02:10@3 03:10@3)@5 04:10@5'],
    ['another cable keeps lengths, and needs one', () => done(cableEach(series, [a, b], { awg: 12 }), series), '01:10@5 series(02:10 03:10@5)@5 04:10@5 | 02: no length stated'],
    ['the same cable is no edit', () => done(cableEach(job, [a], { awg: 16 })), 'nothing'],
    ['labels count on in the order chosen', () => done(relabelEach(job, [a, b, c], 'C09')), 'C09:10@5 C10:10@5 C11:10@5 04:10@5'],
    ['a label too long is not made', () => done(relabelEach(job, [a], 'x'.repeat(60))), 'nothing | 01: the label would be too long'],
    ['taken off: the cable stays', () => done(removeEach(job, [b, c])), '01:10@5 04:10@15'],
    ['a whole group taken off', () => done(removeEach(series, [b, c]), series), '01:10@5 04:10@10'],
    ['moved to another line in their order, the gap closed', () => { const on = applyEdit(job, moveEach(job, [c, a], { outputId: 'out3' }).edit!).job; return `${drawn(on)} | ${drawn(on, 2)}` }, '02:10@10 04:10@10 | 01:5@5 02:10@5 03:10@5'],
    ['a number that stands there becomes the lowest free one, and it is said', () => moveEach(job, [c, a], { outputId: 'out3' }).renumbered.map(r => `${r.from} ${r.to}`).join(), '01 02'],
    ['two that bore one number among themselves keep it where nobody else does', () => { const twins = applyEdit(job, { kind: 'speaker.set', nodeId: b, was: { label: '02' }, to: { label: '01' } }).job; return drawn(applyEdit(twins, moveToNew(twins, [a, b], newId())!.edit!).job, 3) }, '01:10@5 01:10@5'],
    ['its length there not known', () => { const on = applyEdit(job, moveEach(job, [c], { outputId: 'out3' }, 'not-stated').edit!).job; return `${drawn(on)} | ${drawn(on, 2)}` }, '01:10@5 02:10@5 04:10@10 | 01:5@5 03:10'],
    ['to the end of what hangs behind a control', () => done(moveEach(series, [a], { behindId: placeOf(series, b).parent.id }), series), 'series(02:10 03:10@5 01:10@5)@10 04:10@5'],
    ['moved behind one of the same line', () => done(moveEach(job, [a, b], { afterId: c })), '03:10@5 01:10@5 02:10@5 04:10@5'],
    ['moved before one, from both sides', () => done(moveEach(job, [a, d], { beforeId: c })), '02:10@5 01:10@5 04:10@5 03:10@5'],
    ['before the first', () => done(moveEach(job, [c, d], { beforeId: a })), '03:10@5 04:10@5 01:10@5 02:10@5'],
    ['to the end of their own line', () => done(moveEach(job, [a, b], { outputId: 'out1' })), '03:10@5 04:10@5 01:10@5 02:10@5'],
    ['behind where they stand', () => done(moveEach(job, [b, c], { afterId: a })), 'nothing'],
    ['behind one of themselves', () => done(moveEach(job, [a, b], { afterId: b })), 'nothing'],
    ['to a new output, rated like their own', () => { const on = applyEdit(job, moveToNew(job, [c, d], newId())!.edit!).job; return `${drawn(on)} | ${drawn(on, 3)} | ${same(outputOf(on, 3).rating, outputOf(on).rating)}` }, '01:10@5 02:10@5 | 03:10@5 04:10@5 | true'],
    ['nobody to a new output', () => String(moveToNew(job, [], newId())), 'null'],
    ['a group goes whole', () => { const on = applyEdit(series, moveEach(series, [b, c], { outputId: 'out3' }).edit!).job; return `${drawn(on)} | ${drawn(on, 2)}` }, '01:10@5 04:10@10 | 01:5@5 series(02:10 03:10@5)@5'],
    ['a group of one goes whole', () => done(moveEach(applyEdit(series, removeEach(series, [b]).edit!).job, [c], { afterId: d }), applyEdit(series, removeEach(series, [b]).edit!).job), '01:10@5 04:10@5 series(03:10@5)@5'],
    ['copied behind the last, with numbers that are free', () => done(copyEach(job, [a, c], newId())), '01:10@5 02:10@5 03:10@5 05:10@5 06:10@5 04:10@5'],
    ['a group copied whole', () => done(copyEach(series, [b, c], newId()), series), '01:10@5 series(02:10 03:10@5)@5 series(05:10 06:10@5)@5 04:10@5'],
    ['more like one, so far apart', () => done(addLike(job, b, 2, 6, awg, newId())), '01:10@5 02:10@5 05:10@6 06:10@6 03:10@5 04:10@5'],
    ['more like one, on leads like its own', () => done(addLike(job, d, 1, null, awg, newId())), '01:10@5 02:10@5 03:10@5 04:10@5 05:10@5'],
    ['three in series', () => done(joinEach(job, [a, b, c], 'series', newId())), 'series(01:10 02:10@5 03:10@5)@5 04:10@5'],
    ['two stretches are two groups', () => done(joinEach(cabledSix, ids6.filter((_, k) => k !== 2), 'star', newId()), cabledSix), 'star(01:10 02:10@5)@5 03:10@5 star(04:10 05:10@5 06:10@5)@5'],
    ['alone: nothing to join', () => done(joinEach(job, [a, c, d], 'series', newId())), '01:10@5 02:10@5 series(03:10 04:10@5)@5 | 01: not beside the others'],
  ])('%s', (_, run, wanted) => expect(run()).toBe(wanted))
})
const cabledSix = cabled(jobOf('6 x 10 W on 70 V'), { cable: awg, lengthM: 5 })
const ids6 = speakersOf(outputOf(cabledSix).wiring).map(s => s.id)

test('one field for all is one edit, only where it changes something; undone it is the very same job', () => {
  const { edit } = setEach(job, [a, b, plain[0]!], { continuousW: 30 })
  expect(partsOf(edit!).length).toBe(3)
  const applied = applyEdit(job, edit!)
  expect(applyEdit(applied.job, applied.inverse).job).toEqual(job)
  expect(setEach(applied.job, [a, b], { continuousW: 30 }).edit).toBeNull()
})

test('many labels are not all read out', () => {
  const ids = speakersOf(outputOf(jobOf('9 x 8 parallel')).wiring).map(s => s.id)
  expect(skippedWords(retapEach(jobOf('9 x 8 parallel'), ids, 1).skipped)).toBe('01, 02, 03, 04, 05 and 4 more: no line transformer')
})

test.each<[string, number, string[]]>([
  ['C01', 3, ['C01', 'C02', 'C03']], ['9', 2, ['9', '10']], ['A2 07', 2, ['A2 07', 'A2 08']], ['2a', 2, ['2a', '3a']], ['nave', 2, ['nave 1', 'nave 2']],
  ['A', 3, ['A', 'B', 'C']], ['y', 2, ['y', 'z']], ['y', 3, ['y 1', 'y 2', 'y 3']], ['Z', 2, ['Z 1', 'Z 2']], [' 08 ', 3, ['08', '09', '10']],
])('“%s” counts on', (first, count, wanted) => expect(countedOn(first, count)).toEqual(wanted))

/** What thirty edits at random make of a job. */
function randomJob(chance: () => number): Job {
  const id = counter('r')
  let on = jobOf('5 x 10 W on 70 V', '8 || 8 || 8', '(8 + 8) || (4 + 4)')
  for (let k = 0; k < 30; k++) {
    const edit = randomEdit(on, chance, id)
    try {
      if (edit) on = applyEdit(on, edit).job
    }
    catch { /* it did not fit: the next one may */ }
  }
  return on
}

test('seeded jobs: whatever is done to a choice of many, nobody is lost, order is kept, and it comes back', () => {
  let taken = 0
  for (let seed = 1; seed <= runs(80); seed++) {
    const chance = seeded(seed)
    const on = randomJob(chance)
    const everyone = outputsOf(on).flatMap(o => speakersOf(o.wiring))
    const chosen = everyone.filter(() => chance() < 0.4).map(s => s.id)
    const target = outputsOf(on).at(-1)
    if (!target) continue
    const acts: Record<string, Edit | null> = {
      move: moveEach(on, chosen, { outputId: target.id }).edit, remove: removeEach(on, chosen).edit, copy: copyEach(on, chosen, newId()).edit,
      join: joinEach(on, chosen, 'star', newId()).edit,
    }
    for (const [act, edit] of Object.entries(acts)) {
      // What would stand a control behind a control is refused as a whole, and said.
      if (!edit || !isTaken(on, edit)) continue
      taken++
      const applied = applyEdit(on, edit)
      const after = outputsOf(applied.job).flatMap(o => speakersOf(o.wiring)).map(s => s.id)
      const count = everyone.length + (act === 'remove' ? -chosen.length : act === 'copy' ? chosen.length : 0)
      expect([seed, act, after.length]).toEqual([seed, act, count])
      if (act === 'move') expect(speakersOf(outputsOf(applied.job).at(-1)!.wiring).map(s => s.id).slice(-chosen.length)).toEqual(chosen)
      expect(applyEdit(applied.job, applied.inverse).job).toEqual(on)
    }
    expect(wholeNodes(on, chosen).flatMap(({ node }) => speakersOf(node).map(s => s.id))).toEqual(chosen)
  }
  expect(taken).toBeGreaterThan(runs(80) * 3)
})
