import { always } from '#core/testing/runs'
import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { readStampedInSteps, stampedEditSchema } from './edits'
import { Records } from './records'

interface Entry { id: string, outputId: string, state: number }
const list = (records: Records<Entry>) => [[...records], ['A', 'B'].map(line => records.under(line)), records.size]

test('records are what a plain list would be, along every branch of their history', () => {
  const step = fc.record({ from: fc.nat(1000), line: fc.constantFrom('A', 'B'), replace: fc.boolean(), which: fc.nat(1000) })
  always(fc.property(fc.array(step, { maxLength: 40 }), (steps) => {
    // Every version stays as it was, whatever is made of it later: two that grow from one version do not meet.
    const versions: { records: Records<Entry>, plain: Entry[] }[] = [{ records: Records.of([{ id: 'first', outputId: 'A', state: 0 }], 7), plain: [{ id: 'first', outputId: 'A', state: 0 }] }]
    for (const [k, { from, line, replace, which }] of steps.entries()) {
      const { records, plain } = versions[from % versions.length]!
      const old = plain[which % plain.length]!
      const entry = replace ? { ...old, state: k } : { id: `e${k}`, outputId: line, state: 0 }
      versions.push(replace
        ? { records: records.replaced(entry), plain: plain.map(e => e.id === old.id ? entry : e) }
        : { records: records.added(entry), plain: [...plain, entry] })
    }
    expect([...Records.of(versions.at(-1)!.plain)]).toEqual(versions.at(-1)!.plain)
    for (const { records, plain } of versions) {
      expect(list(records)).toEqual([plain, ['A', 'B'].map(line => plain.filter(e => e.outputId === line)), plain.length + 7])
      for (const entry of plain) expect(records.get(entry.id)).toEqual(entry)
    }
  }))
})

test('the list of a line keeps its identity while only other lines change', () => {
  const before = Records.of<Entry>([{ id: 'a', outputId: 'A', state: 0 }, { id: 'b', outputId: 'B', state: 0 }])
  const after = before.added({ id: 'c', outputId: 'B', state: 0 })
  expect([after.under('A') === before.under('A'), after.under('B') === before.under('B'), before.under('C')]).toEqual([true, false, []])
})

test('read part by part, an edit is what the schema says of it in one go: taken alike, refused alike', () => {
  const good = { kind: 'node.remove', nodeId: 'a' }
  const stamped = (edit: unknown, more = {}) => ({ id: 'e', by: 'w', undoes: null, edit, ...more })
  const cases: unknown[] = [
    stamped(good), stamped({ kind: 'batch', edits: [good, good] }), stamped({ kind: 'batch', edits: [] }), stamped({ kind: 'batch', edits: [good, { kind: 'x' }] }), stamped({ kind: 'batch', edits: [{ ...good, nodeId: 1 }] }),
    stamped({ kind: 'batch', edits: [{ kind: 'batch', edits: [] }] }), stamped({ kind: 'batch', edits: 'x' }), stamped({ kind: 'batch' }), stamped({ kind: 'batch', edits: [], more: 1 }), stamped(good, { id: 'no good' }), stamped(null), null, 7,
    stamped({ kind: 'batch', edits: new Array(10_001).fill(good) }),
  ]
  for (const data of cases) {
    const steps = readStampedInSteps(data)
    let step = steps.next()
    while (!step.done) step = steps.next()
    const whole = stampedEditSchema.safeParse(data)
    if (whole.success) expect(step.value).toEqual(whole.data)
    else expect(step.value).toMatchObject({ issues: expect.anything(), at: expect.any(String) })
  }
})
