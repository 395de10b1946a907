import { describe, expect, test } from '@jest/globals'
import { ANSWERS, QUESTIONS, UNIT_KINDS } from '#core/job/sections/tickets/schema'
import { answer, coil, ticket } from '#core/testing/ticket'
import { FAULTS } from '#core/faults/index'
import { SEED } from '#core/testing/runs'
import { seeded } from '#core/testing/trees'
import { ANSWER_WORDS, bitsOf, CAUSE_WORDS, CAUSES, ohmClass, OUTSIDE, STANDS, whichOne } from './whichOne'
import type { Written } from '#core/job/schema'

const speaker = (...whats: Written[]) => whichOne(ticket({ kind: 'speaker', labelOhm: 8 }, ...whats))
const handset = (...whats: Written[]) => whichOne(ticket({}, ...whats))
const chanceOf = (of: ReturnType<typeof whichOne>, cause: string) => of.causes.find(c => c.cause === cause)!.chance

describe('what may be wrong with one unit', () => {
  test.each<[string, ReturnType<typeof whichOne>, string]>([
    ['thin, the other better', speaker(answer('plays', 'thin'), answer('twin', 'twin-plays'), answer('swap', 'follows-the-unit')), 'high-unit'],
    ['scratchy, rubs', speaker(answer('plays', 'scratchy'), answer('cone', 'rubs')), 'rubbing'], ['scratchy, torn', speaker(answer('plays', 'scratchy'), answer('look', 'torn')), 'cone'],
    ['silent, stays with the lead', speaker(answer('plays', 'silent'), answer('twin', 'twin-plays'), answer('swap', 'stays-with-the-lead'), answer('wiggle', 'nothing-changes')), 'amplifier'],
    ['comes and goes by the lead', handset(answer('plays', 'comes-and-goes'), answer('wiggle', 'cuts-in-and-out')), 'lead'],
    ['silent, coil open', speaker(answer('plays', 'silent'), answer('swap', 'follows-the-unit'), coil(null)), 'coil'],
    ['silent, coil right, lead open', handset(answer('plays', 'silent'), coil(31), coil(null, { of: 'lead' })), 'lead'],
    ['a contact that reads 40 Ω', handset(answer('plays', 'scratchy'), coil(40, { of: 'contact' })), 'contact'],
    ['plays, and its twin as well', speaker(answer('plays', 'plays'), answer('twin', 'both-the-same')), 'nothing'],
    ['both silent', speaker(answer('plays', 'silent'), answer('twin', 'both-the-same')), 'amplifier'],
  ])('%s', (_, of, cause) => expect(of.causes[0]!.cause).toBe(cause))

  test('chances add up to one for every unit and every way to answer; a question tells no less than nothing', () => {
    const next = seeded(SEED)
    for (let n = 0; n < 400; n++) {
      const kind = UNIT_KINDS[Math.floor(next() * UNIT_KINDS.length)]!
      const asked = QUESTIONS.filter(() => next() < 0.5).map(q => answer(q, ANSWERS[q][Math.floor(next() * ANSWERS[q].length)]!))
      const { causes, next: ask, notYet } = whichOne(ticket({ kind }, ...asked))
      if (notYet) expect([n, ANSWER_WORDS[ask!].opens]).toEqual([n, false])
      expect(causes.reduce((sum, c) => sum + c.chance, 0)).toBeCloseTo(1, 9)
      const chances = CAUSES.map(cause => causes.find(c => c.cause === cause)!.chance)
      for (const q of QUESTIONS) expect([n, bitsOf(q, chances, kind) >= -1e-9]).toEqual([n, true])
      expect(asked.length === QUESTIONS.length ? ask === null : asked.every(a => a.is === 'answer' && a.to !== ask)).toBe(true)
    }
  })
  test('after three answers less stands than before', () => {
    const standing = (of: ReturnType<typeof whichOne>) => of.causes.filter(c => c.chance >= STANDS).length
    const steps = [speaker(), speaker(answer('plays', 'scratchy')), speaker(answer('plays', 'scratchy'), answer('swap', 'follows-the-unit')), speaker(answer('plays', 'scratchy'), answer('swap', 'follows-the-unit'), answer('cone', 'rubs'))].map(standing)
    expect(steps).toEqual([...steps].sort((a, b) => b - a))
    expect(steps.at(-1)).toBeLessThan(4)
  })
  test('it is not opened while the fault may lie outside and can be told from outside', () => {
    const inside = speaker(answer('plays', 'thin'), answer('swap', 'follows-the-unit'))
    const outside = OUTSIDE.reduce((sum, cause) => sum + chanceOf(speaker(), cause), 0)
    expect([speaker().notYet, inside.notYet]).toEqual([`Do not open it yet: ${Math.round(100 * outside)} in 100 say that it is not the unit, and 4 questions are left that need no screwdriver.`, null])
    // Nothing is left to ask from outside: then it may be opened.
    expect(speaker(answer('plays', 'silent'), answer('twin', 'twin-plays'), answer('swap', 'stays-with-the-lead'), answer('wiggle', 'nothing-changes')).notYet).toBeNull()
  })
  test('what tells the most for its minutes comes first; nothing that needs a screwdriver while it is not to be opened', () => {
    expect([speaker().next, handset(answer('plays', 'comes-and-goes')).next]).toEqual(['plays', 'wiggle'])
    // By what it tells alone the exchange would come before the half minute of the lead; by minutes it does not.
    const chances = CAUSES.map(cause => chanceOf(speaker(answer('plays', 'silent')), cause))
    expect([bitsOf('swap', chances, 'speaker') > bitsOf('wiggle', chances, 'speaker'), bitsOf('swap', chances, 'speaker') / 2 < bitsOf('wiggle', chances, 'speaker') / 0.5]).toEqual([true, true])
    expect(['wiggle', 'twin']).toContain(speaker(answer('plays', 'silent')).next)
    for (const kind of UNIT_KINDS) {
      for (const heard of ANSWERS.plays) {
        const { notYet, next } = whichOne(ticket({ kind }, answer('plays', heard), answer('twin', 'twin-plays')))
        if (notYet) expect([kind, heard, next]).toEqual([kind, heard, expect.stringMatching(/swap|wiggle/)])
      }
    }
  })
  test('a lead of its own goes along with the unit', () => {
    const follows = answer('swap', 'follows-the-unit')
    expect([chanceOf(handset(follows), 'lead') > chanceOf(handset(), 'lead'), chanceOf(speaker(follows), 'lead') < chanceOf(speaker(), 'lead')]).toEqual([true, true])
  })
  test.each([['right', 'coil', 6.2, 8], ['low', 'coil', 4, 8], ['high', 'coil', 12, 8], ['open', 'coil', null, 8], [null, 'coil', 5, null], ['right', 'contact', 0.8, 8], ['high', 'lead', 1.2, null]] as const)(
    '%s: %s of %s Ω, label %s', (is, of, ohm, label) => expect(ohmClass(of, ohm, label)).toBe(is))
  test('one that opened once has opened', () => expect(speaker(coil(null), coil(6)).causes).toEqual(speaker(coil(6), coil(null)).causes))
  test('faults that it names are in the catalogue', () => {
    const named = Object.values(CAUSE_WORDS).flatMap(c => c.fault ?? [])
    expect(named.length).toBeGreaterThan(6)
    expect(named.filter(f => !FAULTS.some(d => d.kind === f))).toEqual([])
  })
})
