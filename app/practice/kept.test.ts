import { describe, expect, test } from '@jest/globals'
import { jobOf, outputOf } from '#core/testing/jobs'
import { checkExercise, codeOfExercise, rigOfFile } from '#core/practice/files'
import { MOST_RESULTS, type Result } from '#core/practice/result'
import { joined, missingIn, readActs, readExercises, readResults, standingWith, withExercise } from './kept'
import { ownExercise, practiceAddress } from './ownExercise'
import { sourceOf } from './source'

const result = (more: Partial<Result> = {}): Result =>
  ({ code: 'R4-07-00001', at: '2026-05-04T09:00:00Z', minutes: 20, tests: 3, ladders: 1, mistakes: 0, risks: 0, isFound: true, isNamed: true, bestMinutes: 10, worst: null, ...more })

describe('what is kept', () => {
  test.each<[string, string | null, number]>([
    ['nothing', null, 0], ['rubbish', 'What do I type?', 0], ['no list', '{}', 0], ['one of two', JSON.stringify([result(), { code: 1 }]), 1], ['both', JSON.stringify([result(), result({ minutes: 3 })]), 2],
  ])('results: %s', (_, text, count) => expect(readResults(text)).toHaveLength(count))
  test('acts of another version are left out, the others stand', () => expect(readActs('[{"do":"null-leads"},{"do":"dance"},{"do":"amplifier","on":true}]')).toEqual([{ do: 'null-leads' }, { do: 'amplifier', on: true }]))
  test('two lists are one: each play once, the one that knows the best, oldest first, and no more than the last so many', () => {
    const late = result({ at: '2026-05-05T09:00:00Z', bestMinutes: null })
    expect(joined([late, result()], [{ ...late, bestMinutes: 7 }])).toEqual([result(), { ...late, bestMinutes: 7 }])
    expect(joined([{ ...late, bestMinutes: 7 }], [late])).toEqual([{ ...late, bestMinutes: 7 }])
    const many = Array.from({ length: MOST_RESULTS + 5 }, (_, k) => result({ at: new Date(Date.UTC(2026, 1, 1, 0, k)).toISOString() }))
    expect(joined(many, [])).toEqual(many.slice(5))
  })
  test('what the server has not is sent to it', () => {
    const late = result({ at: '2026-05-05T09:00:00Z' })
    expect([missingIn([], [result()]), missingIn([result()], [result(), late]), missingIn([{ ...late, bestMinutes: null }], [late]), missingIn([late],
      [{ ...late, bestMinutes: null }])]).toEqual([[result()], [late], [late], []])
  })
})

test.each<[string, Partial<Result>[], object]>([
  ['nothing tried', [], { plays: 0, found: 0, minutes: null }],
  ['another exercise', [{ code: 'R4-17-00001' }], { plays: 0 }],
  ['not found', [{ isFound: false, isNamed: false }], { plays: 1, found: 0, minutes: null }],
  ['named otherwise is not found', [{ isNamed: false }], { plays: 1, found: 0 }],
  ['the nearest to its best counts, not the quickest', [{ minutes: 8, bestMinutes: 4 }, { minutes: 20, bestMinutes: 19 }], { found: 2, minutes: 20, bestMinutes: 19 }],
  ['never without a risk', [{ risks: 1 }], { found: 1, isClean: false }],
  ['once without', [{ risks: 1 }, {}], { found: 2, isClean: true }],
])('how somebody stands: %s', (_, all, wanted) => expect(standingWith(all.map(result), 7)).toMatchObject(wanted))

test('an own line: a copy with something hidden that it can have; its code leads to it, and one that is not here is told', () => {
  const job = jobOf('6 x 5 W on 70 V 60 W')
  const line = outputOf(job)
  const exercise = ownExercise('Fern house', line, 7)
  checkExercise(exercise)
  expect([rigOfFile(exercise).faults.length, exercise.line]).toEqual([1, line])
  const kept = withExercise([exercise], { ...exercise, seed: 8 }, codeOfExercise)
  expect([readExercises(JSON.stringify(kept)).length, sourceOf(codeOfExercise(exercise).toLowerCase(), kept)]).toEqual([2, { exercise }])
  expect(withExercise(kept, exercise, codeOfExercise).map(e => e.seed)).toEqual([8, 7])
  expect(() => sourceOf('X-00000000', kept)).toThrow('not on this device')
  expect(sourceOf('r4-07-0000a', [])).toEqual({ code: 'R4-07-0000A' })
  expect([practiceAddress('j', job, null).query.line, practiceAddress('j', job, 'gone').query.line, practiceAddress('j', null, null).path]).toEqual([line.id, line.id, '/practice'])
})
