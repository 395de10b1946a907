import { describe, expect, test } from '@jest/globals'
import { unstatedModel } from '#core/gear/models'
import type { Kind, Space } from '#core/job/schema'
import { plainSpace } from '#core/job/sections/spaces/schema'
import type { SpaceFacts, SpotFacts } from './spaces'
import { evennessWords, measuredWords, missingWords, peaksWords, spaceGrade, spaceRemarks, spacingWords, targetWords, verdictWords } from './spaceWords'

const kind = (over: Partial<Kind['model']> = {}): Kind => ({ what: 'speaker', id: 'k', from: null, model: { ...unstatedModel('speaker', 'Ceiling'), coverageDeg: 90, ...over } })
const facts = (over: Partial<SpaceFacts> = {}): SpaceFacts => ({
  spaceId: 's', targetDb: 70, kind: kind(), circleM: 4.8, spacingM: 3.394, spots: [], free: 0, unknown: [], assumed: [], taps: null,
  level: { meanDb: 71.24, spreadDb: 1, p10Db: 69, p90Db: 74, within3Db: 0.961 }, ...over,
})
const at = (meanDb: number) => ({ ...facts().level!, meanDb })
const space = (over: Partial<Space> = {}): Space => ({ ...plainSpace('s', 'Hall'), noiseDb: 64, cableRemark: 'listed', ...over })

test.each<[string, Partial<SpaceFacts>, string, RegExp]>([
  ['met', {}, 'good', /^Reaches its target: 71\.2 dB on average, 70 dB wanted\.$/],
  ['just met', { level: at(69.5) }, 'good', /^Reaches/],
  ['just missed', { level: at(69.49) }, 'tight', /^0\.5 dB short of its target: 69\.5 dB on average, 70 dB wanted/],
  ['too much, a lower tap there', { level: at(76), taps: { nowW: 10, lowestW: 5, steps: [] } }, 'good', /with 6\.0 dB to spare.* 5 W would do\.$/],
  ['too much, none lower', { level: at(76), taps: { nowW: 5, lowestW: 5, steps: [] } }, 'good', /to spare: 76\.0 dB on average, 70 dB wanted\.$/],
  ['no target', { targetDb: null, unknown: ['noise'] }, 'unknown', /^Not known yet: how loud it is there/], ['no level', { level: null, unknown: ['kind', 'no-places'] }, 'unknown', /which speakers hang there; where speakers hang\.$/],
])('%s', (_, over, grade, says) => {
  expect(spaceGrade(facts(over))).toBe(grade)
  expect(verdictWords(facts(over))).toMatch(says)
})
test('nothing missing, nothing said', () => expect(missingWords([])).toBe(''))

test.each<[Partial<Space>, number | null, RegExp]>([
  [{}, 70, /^Target 70 dB = 64 dB noise and 6 dB: lively background wants 3 to 6; the upper end/], [{ overDb: 2 }, 66, /^Target 66 dB = 64 dB noise and 2 dB that you ask\.$/], [{ use: 'speech', noiseDb: 85 }, 95, /gets no clearer above 95 dB/], [{ noiseDb: null }, null, /^$/],
])('target of %j', (over, targetDb, says) => expect(targetWords(space(over), facts({ targetDb }))).toMatch(says))
test('evenness and peaks', () => {
  expect(evennessWords(facts())).toBe('Nine tenths of the floor above 69.0 dB, a tenth above 74.0 dB; 96 % within 3 dB of the average.')
  expect([evennessWords(facts({ level: null })), peaksWords(space({ peaks: 'none' })), peaksWords(space())]).toEqual(['', 'Levels are at full output of the line.', 'Levels are of the programme on average: 6 dB below full output, kept for its peaks (open programme).'])
})
test.each<[string, Partial<Space>, Partial<SpaceFacts>, string]>([
  ['metric', {}, {}, 'One covers 4.8 m across at the ears (90°); least overlap: at most 3.39 m apart.'],
  ['no kind', {}, { kind: null }, ''],
  ['no angle', {}, { kind: kind({ coverageDeg: null }), circleM: null }, 'The coverage angle of Ceiling is not stated: no spacing can be worked out.'],
  ['all round', {}, { circleM: null }, 'Ears are as high as the ceiling, or it covers all round: no circle, lay the places out by hand.'],
  ['all aimed', { spots: [{ id: 'p', xM: 1, yM: 1, heightM: null, aim: { turnDeg: 0, tiltDeg: 0 }, nodeId: null }] }, {}, 'Units that face along the floor are not set by circles: read the level between them.'],
])('spacing, %s', (_, over, more, says) => expect(spacingWords(space(over), facts(more), 'metric')).toBe(says))
test('in feet', () => expect(spacingWords(space(), facts(), 'imperial')).toMatch(/15\.7 ft across.* 11\.1 ft apart/))

describe('remarks of the trade, cautions marked', () => {
  const down = { spot: { aim: null, heightM: null } } as SpotFacts
  test.each<[string, Partial<Space>, Partial<SpaceFacts>, RegExp[]]>([
    ['tiles', { ceiling: 'tiles' }, { spots: [down] }, [/^caution A tile does not bear/]],
    ['overhead', {}, { spots: [down] }, [/^caution What hangs overhead is held twice/]],
    ['nothing hangs', {}, {}, []],
    ['speech', { use: 'speech' }, {}, [/^caution Evacuation and fire alarm/]],
    ['an event', { use: 'event' }, {}, [/^caution Evacuation/]],
    ['open backs', {}, { kind: kind({ build: 'ceiling-open' }) }, [/^remark Open at the back/]],
    ['a high roof', { heightM: 5 }, { spots: [down] }, [/^caution What hangs/, /^remark A high roof/]],
    ['outdoors', { ceiling: 'outdoors' }, { kind: kind({ build: 'pendant' }) }, [/^remark Outdoors/]],
    ['no listing noted', { cableRemark: ' ' }, {}, [/^remark Cable in walls/]],
  ])('%s', (_, over, more, wanted) => {
    const told = spaceRemarks(space(over), facts(more)).map(r => `${r.grade} ${r.says}`)
    expect(told.length).toBe(wanted.length)
    wanted.forEach((says, k) => expect(told[k]).toMatch(says))
  })
})
test.each<[number, number | null, RegExp]>([[70, null, /^70\.0 dB measured\.$/], [72.9, 70, /as worked out, within 3 dB/], [67, 70, /as worked out/], [74, 70, /4\.0 dB more than direct sound alone/], [66, 70, /4\.0 dB less than worked out/]])('measured %d, worked out %s', (measured, worked, says) => expect(measuredWords(measured, worked)).toMatch(says))
