import { describe, expect, test } from '@jest/globals'
import { unstatedModel } from '#core/gear/models'
import { drained } from '#core/quantity/steps'
import { jobOf } from '#core/testing/jobs'
import type { Kind, Space } from '#core/job/schema'
import { plainSpace } from '#core/job/sections/spaces/schema'
import type { SpaceFacts, SpotFacts } from './spaces'
import { evennessWords, lossWords, measuredWords, missingWords, otherModelWords, peaksWords, spaceGrade, spaceRemarks, spacingWords, targetWords, tooQuietSpaces, verdictWords } from './spaceWords'
import { tooQuietWords } from './tooQuietWords'

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
  [{}, 70, /^Target 70 dB = 64 dB noise and 6 dB: lively background wants 3 to 6; the upper end/], [{ overDb: 2 }, 66, /^Target 66 dB = 64 dB noise and 2 dB that you ask\.$/], [{ use: 'speech', noiseDb: 85 }, 95, /gets no clearer above 95 dB/], [{ noiseDb: null }, null, /^$/], [{ use: 'masking', noiseDb: 46 }, 48, /sound masking wants 2 to 5 dB above 46 dB of noise, but is to stay below speech: 48 dB at most\.$/],
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
    ['masking', { use: 'masking' }, {}, [/^remark Masking is heard where it changes/]],
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

const steps = (...means: number[]) => ({ nowW: 5, lowestW: null, steps: means.map((meanDb, k) => ({ tapW: 5 * (k + 1), meanDb })) })
test.each<[string, Partial<SpaceFacts>, string]>([
  ['far over on its lowest', { taps: steps(81, 84) }, '11.0 dB over on its lowest tap, 5 W: a less sensitive speaker, one with a lower tap, or fewer of them would do.'],
  ['six over is left alone', { taps: steps(76, 79) }, ''],
  ['short on its highest', { taps: steps(60, 63) }, '7.0 dB short on its highest tap, 10 W: a more sensitive speaker, or more of them, closer.'],
  ['one tap reaches', { taps: steps(68, 71) }, ''], ['no target', { targetDb: null, taps: steps(81) }, ''], ['no taps', {}, ''],
])('another model: %s', (_, over, says) => expect(otherModelWords(facts(over))).toBe(says))

test.each<[string, Partial<Kind['model']>, number | null, string]>([
  ['stated', { insertionDb: 1.5 }, 5, 'Counted: 1.5 dB lost in the transformer, as stated.'], ['not stated', {}, 5, 'Counted: 1.0 dB lost in the transformer, taken: its sheet states none.'],
  ['the driver gets it', { tapMeans: 'driver-gets' }, 5, 'Counted: no transformer loss, since its taps say what the driver gets.'], ['no tap', {}, null, ''], ['off', {}, 0, ''],
])('the loss of a transformer: %s', (_, model, tapW, says) => expect(lossWords({ spots: [{ kind: kind(model), tapW } as SpotFacts] })).toBe(says))

test('spaces that fall short, by name; one of which not all is known is none', () => {
  const spot = { id: 'p', xM: 5, yM: 4, heightM: null, aim: null, nodeId: null }
  const loud = { ...plainSpace('a', 'Hall'), kindId: 'k', noiseDb: 40, spots: [spot], tapW: 20 }
  const job = {
    ...jobOf('8'), kinds: [kind({ sensitivityDb: 90, sensitivityAt: '1 W', scales: [{ lineV: 70.71, tapsW: [5, 20] }] })],
    spaces: [loud, { ...loud, id: 'b', name: 'Bar', noiseDb: 95 }, { ...loud, id: 'c', name: 'Yard', noiseDb: null }],
  }
  expect(drained(tooQuietSpaces(job, new Map()))).toEqual(['Bar'])
  expect([[], ['Bar'], ['A', 'B'], ['A', 'B', 'C']].map(tooQuietWords)).toEqual(['', 'Bar too quiet', 'A and B too quiet', '3 spaces too quiet'])
})
