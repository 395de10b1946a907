import { describe, expect, test } from '@jest/globals'
import { ACTION_GROUPS, actionOf, actionsFor, keysShown, runAction, type Action, type ActionTarget } from '~/composables/action'
import { findActions } from '~/composables/findAction'
import { actsOnPage } from '~/composables/keyPlace'
import { demoJobs } from '../../demo'
import { evaluateJob } from '#core/line/evaluate'
import { jobState } from '#core/line/lineState'
import { jobOf } from '#core/testing/jobs'
import { listKeys } from '~/components/jobs/keys'
import { quickKeys } from '~/components/quick/keys'
import { gearKeys } from '~/gear/keys'
import { STATIONS } from '.'
import { walkKeys } from './check/keys'
import { jobKeys } from './keys'
import { match } from './match/station'
import { spaceActions } from './space/keys'
import { sheetActions } from './match/keys'
import { placesNamed } from './match/search'
import { addressOf } from './station'
import { faultAt, type Fault } from '#core/faults/fault'
import type { Edit } from '#core/job/edits'
import { levelTyped } from './check/levelTaken'
import { readDraft } from './trace/levelDrafts'
import { levelsEdit, levelsTyped, walkEdit } from './trace/answered'
import { numbersOf, placesText, shareText, shownGroups } from './trace/shown'
import { timeOf } from '~/drawing/times'

/** Deeds that note what was asked of them. */
function noting(): { deeds: never, done: string[] } {
  const done: string[] = []
  const deeds = new Proxy({}, { get: (_, name) => (...args: unknown[]) => void done.push([String(name), ...args].map(a => typeof a === 'object' ? (a as { name?: string }).name ?? '' : a).join(' ').trim()) })
  return { deeds: deeds as never, done }
}
const TARGETS: ActionTarget[] = ['speaker', 'many', 'rail', 'control', 'model', 'space', 'place', 'places']
const tables: [string, ((deeds: never) => Action[])[]][] = [
  ['run sheet', [sheetActions, jobKeys]],
  ['checks', [walkKeys, jobKeys]],
  ['spaces', [spaceActions, jobKeys]],
  ['list of jobs', [listKeys]],
  ['quick match', [quickKeys]],
  ['gear', [gearKeys]],
]

describe.each(tables)('keys of the %s, with those of every station', (_, parts) => {
  const { deeds, done } = noting()
  const bindings = parts.flatMap(table => table(deeds))
  const keys = bindings.flatMap(b => b.keys)
  test('no key does two things to one that is chosen', () => {
    for (const target of [null, ...TARGETS]) {
      const inScope = bindings.filter(b => !b.isOnlyTo || (target !== null && b.to?.includes(target))).flatMap(b => b.keys)
      expect(inScope.filter((key, k) => inScope.indexOf(key) !== k)).toEqual([])
    }
  })
  test('/ finds whatever can be done, ? lists it', () => {
    for (const [key, deed] of [['/', 'find'], ['?', 'showKeys']] as const) {
      done.length = 0
      bindings.filter(b => b.keys.includes(key)).forEach(runAction)
      expect(done).toEqual([deed])
    }
    done.length = 0
  })
  test('each says what it does, and does something', () => {
    for (const binding of bindings) {
      expect(binding.says.length).toBeGreaterThan(3)
      for (const key of binding.keys) binding.run({ key: key.replace(/^\w+\+/, '') })
    }
    // What is pasted comes from the browser, not from its key.
    expect(done.length).toBe(keys.filter(key => key !== 'Ctrl+v').length)
  })
})

test('row, menu and key help speak of the same actions: what is offered to a tag, to several, to a rail', () => {
  const { deeds, done } = noting()
  const actions = sheetActions(deeds)
  const row = (target: 'speaker' | 'many' | 'rail' | 'control') => actionsFor(actions, target, true).map(a => a.row).join(', ')
  expect(row('speaker')).toBe('tap −, tap +, change, add, take off, move, series, from one point, control, read, whole rail, all alike')
  expect(row('many')).toBe('tap −, tap +, change, add, copy, take off, move, series, from one point, control, whole rail')
  expect(row('control')).toBe('step −, step +, change, add behind, take out, move, whole rail')
  expect(row('rail')).toBe('change, add, read, whole rail, add an output, amplifiers, what if, split, ways to wire, impedance, match, bands')
  for (const target of ['speaker', 'many', 'rail', 'control'] as const) {
    const menu = actionsFor(actions, target)
    // The menu has all of the row, and nothing that the key list has not.
    expect(menu).toEqual(expect.arrayContaining(actionsFor(actions, target, true)))
    expect(menu.every(a => actions.some(b => b.keys === a.keys && b.run === a.run) && ACTION_GROUPS.includes(a.group))).toBe(true)
    for (const action of menu) runAction(action)
  }
  expect(done.slice(0, 8)).toEqual(['tap -1', 'tap 1', 'enter change', 'add', 'remove', 'beginMove', 'join series', 'join star'])
  expect(actions.filter(a => a.keys.length > 1).map(a => keysShown(a).join(' '))).toEqual(['= +', 'e Enter', 'x Del', 'Ctrl ← Ctrl →', '1…9, 0', '⇧ ← ⇧ →', '← →', '↑ ↓', 'Home End'])
})

test('what the keys of the sheet mean', () => {
  const { deeds, done } = noting()
  const bindings = [...sheetActions(deeds), ...jobKeys(deeds)]
  for (const key of ['ArrowLeft', '=', '-', '+', 'End', 'Home', 'S', '7', 'T', 'L', 'C', 'k', 'Ctrl+y']) bindings.find(b => b.keys.includes(key))!.run({ key } as KeyboardEvent)
  expect(done).toEqual(['along -1', 'tap 1', 'tap -1', 'tap 1', 'toEnd', 'toHead', 'join star', 'choose 7', 'goTo Trace', 'put transformer', 'put control', 'goTo Check', 'redo'])
})

test('every station has its own address and says where it stands', () => {
  expect(new Set(STATIONS.map(s => s.path)).size).toBe(STATIONS.length)
  expect(STATIONS.map(s => addressOf('x', s))).toEqual(['/jobs/x/space', '/jobs/x', '/jobs/x/wire', '/jobs/x/check', '/jobs/x/trace'])
  const told = demoJobs.map(({ job }) => {
    const lines = jobState(job, evaluateJob(job))
    return STATIONS.map(s => `${s.state(lines, job)}${s.isDone(lines, job) ? ' ✓' : ''}`)
  })
  expect(told).toEqual([
    ['6 spaces', '1 tight', '5 pairs named', '22 of 112 proved', '1 open'], ['', 'all fits ✓', '9 pairs named', '6 of 26 proved', 'nothing open'],
    ['', '1 tight', '', '4 of 24 proved', '1 open'], ['', '2 of 3 known to fit', '', '3 of 17 proved', 'nothing open'],
  ])
  expect(STATIONS.map(s => s.state([], null))).toEqual(['', '', '', '', 'nothing open'])
  // Not rated, or with nothing on it, an output is not said to fit.
  const told2 = (...texts: string[]) => {
    const lines = jobState(jobOf(...texts), evaluateJob(jobOf(...texts)))
    return [match.state(lines, null), match.isDone(lines, null)]
  }
  expect([told2('8 on 100 W at 8'), told2('8 on 100 W at 8', '8'), told2('8', '5 W on 70 V')]).toEqual([['all fits', true], ['1 of 2 known to fit', false], ['not known yet', false]])
})

test.each([
  ['a1 03', 'out1 o1n5'], ['A2', 'out2'], ['02', 'out1 o1n4'], ['horn', 'out2 horn'], ['roof', 'out2'], ['A2 09', null], ['nothing such', null], ['  ', null],
])('“%s” finds %s', (typed, wanted) => {
  const [first, second] = evaluateJob(jobOf('3 x 5 W on 70 V', '8 + 8'))
  const lines = [first!, { ...second!, output: { ...second!.output, name: 'Roof walk' }, speakers: [...second!.speakers, { ...second!.speakers[0]!, id: 'horn', label: '77', name: 'Horn 30 W' }] }]
  const found = placesNamed(lines, typed)[0] ?? null
  expect(found && [found.outputId, found.nodeId].filter(Boolean).join(' ')).toBe(wanted)
})

test('what is shown of a ranking: the likely groups, some of many members, and never a chance surer than it can be', () => {
  const two = [faultAt('rubbing', '1'), faultAt('rubbing', '2')]
  const suspect = (probability: number, faults: Fault[] = two) => ({ faults, probability, fit: 0, lineOhm: null, isOverload: false })
  const many = { suspects: Array.from({ length: 9 }, () => suspect(0.11)), probability: 0.99 }
  const sizes = (all: ReturnType<typeof shownGroups>) => all.map(g => [g.rows.length, g.more])
  const groups = shownGroups([many, { suspects: [suspect(0.004)], probability: 0.004 }])
  expect(sizes(groups)).toEqual([[5, 4]])
  expect(sizes(shownGroups([many, many], new Set([1])))).toEqual([[5, 4], [9, 0]])
  // What is hardly likely waits behind the word, but for the first.
  expect(sizes(shownGroups([{ suspects: [suspect(0.4), suspect(0.3), suspect(0.009)], probability: 0.709 }]))).toEqual([[2, 1]])
  // One kind at several places is one row; another size of it, another kind, one of the whole line, or two at once is not.
  const open = (nodeId: string | null) => faultAt('open-at-drop', nodeId)
  const alike = [[open('1')], [faultAt('coil-open', '1')], [open('2')], [open('3')], [faultAt('wrong-tap', '1', { tapW: 5 })], [faultAt('wrong-tap', '1', { tapW: 10 })], [open('1'), open('2')], [open(null)]]
  const { rows } = shownGroups([{ suspects: alike.map(faults => suspect(0.1, faults)), probability: 0.8 }], new Set([0]))[0]!
  expect(rows.map(row => [row.suspects.map(s => alike.indexOf(s.faults as Fault[])), row.probability.toFixed(1)])).toEqual([[[0, 2, 3], '0.3'], ...[[1], [4], [5], [6], [7]].map(k => [k, '0.1'])])
  // As drawn and something else stand beside the faults, however unlikely; before them where likelier than any. Only faults bear numbers.
  const alone = (probability: number, faults: Fault[]) => ({ suspects: [suspect(probability, faults)], probability })
  const orderOf = (drawn: number, other: number, ...faults: number[]) => {
    const shown = shownGroups([alone(drawn, []), alone(other, [faultAt('something-else', null)]), ...faults.map(p => alone(p, two))].sort((a, b) => b.probability - a.probability))
    return [shown.map(g => g.probability), shown.map(g => g.place), numbersOf(shown)]
  }
  expect(orderOf(0.001, 0.05, 0.6, 0.3)).toEqual([[0.6, 0.3, 0.05, 0.001], [0, 1, null, null], [1, 2, null, null]])
  expect(orderOf(0.7, 0.05, 0.2)).toEqual([[0.7, 0.2, 0.05], [null, 0, null], [null, 1, null]])
  expect(orderOf(0.9, 0.1, 0.001)).toEqual([[0.9, 0.1], [null, null], [null, null]])
  expect([placesText(['01', '02']), placesText(['01', '02', '03', '04', '05', '06', '07'])]).toEqual(['01, 02', '01, 02, 03, 04, 05 and 2 more'])
  expect([1, 0.97, 0.969, 0.014, 0.009, 0].map(shareText)).toEqual(['over 97 %', 'over 97 %', '97 %', '1 %', 'under 1 %', 'under 1 %'])
})

describe('a walk is kept as readings of every speaker that was passed, in one act', () => {
  let n = 0
  const by = { outputId: 'out1', who: null, at: '2026-05-04T09:00:00Z', newId: () => `r${++n}` }
  const kept = (edit: Edit | null) => (edit === null ? [] : edit.kind === 'batch' ? edit.edits : [edit]).map((e) => {
    if (e.kind !== 'reading.add') return e.kind
    const { kind, nodeId, value } = e.reading
    return [kind, nodeId, value.is, value.is === 'level' ? value.db : 'how' in value ? value.how : ''].join(' ').trim()
  })
  test.each<[string, Edit | null, string[]]>([
    ['by ear: what nothing was said of plays', walkEdit('walk', ['a', 'b', 'c'], 'c', new Map([['b', 'thin']]), by), ['sound a plays', 'sound b thin', 'sound c plays']],
    ['as far as the first', walkEdit('walk', ['a', 'b', 'c'], 'a', new Map([['b', 'thin']]), by), ['sound a plays']], ['as far as nobody', walkEdit('walk', ['a'], 'gone', new Map(), by), []],
    ['by a pulse', walkEdit('pulse-walk', ['a', 'b'], 'b', new Map([['a', 'reversed']]), by), ['polarity-heard a reversed pulse', 'polarity-heard b right-way pulse']],
    ['by the level meter', levelsEdit(new Map([['b', { is: 'level', db: 81.5, weighting: 'A', signal: 'pink-noise', headV: null }]]), by), ['level b level 81.5']],
    ['none read', levelsEdit(new Map(), by), []],
  ])('%s', (_, edit, wanted) => expect(kept(edit)).toEqual(wanted))
  test.each([[null, 0], ['[["a","80"]]', 1], ['{"a":"80"}', 0], ['[["a",80]]', 0], ['rubbish', 0]])('a draft that lies there: %s', (text, wanted) => expect(readDraft(text).length).toBe(wanted))
  test('levels as they were typed, or which is none and why', () => {
    const typed: Record<string, string> = { a: '81,5', b: '79', c: 'loud' }
    const all = (ids: string[]) => levelsTyped(ids.map(id => ({ id, label: id.toUpperCase() })), id => levelTyped(typed[id]!, ''))
    expect(all(['a', 'b'])).toEqual(new Map([['a', { db: 81.5, headV: null }], ['b', { db: 79, headV: null }]]))
    expect(all(['a', 'c'])).toMatch(/^C: A level lies between 20 and 150 dB/)
  })
})

describe('whether a key of the page acts where the focus is', () => {
  const nowhere = { typing: false, form: false, presses: false }
  test.each([
    ['on the page', 'o', nowhere, true], ['in a field', 'o', { ...nowhere, typing: true }, false], ['in a field, Escape as well', 'Escape', { ...nowhere, typing: true }, false],
    ['on a button of a form, a letter', 'o', { ...nowhere, form: true, presses: true }, false], ['on a button of a form, a sign', '=', { ...nowhere, form: true, presses: true }, false],
    ['on a button of a form, Escape', 'Escape', { ...nowhere, form: true, presses: true }, true], ['on a button of a form, undo', 'Ctrl+z', { ...nowhere, form: true, presses: true }, true],
    ['on a button, a letter', 'o', { ...nowhere, presses: true }, true], ['on a button, Enter', 'Enter', { ...nowhere, presses: true }, false], ['on a button, Space', ' ', { ...nowhere, presses: true }, false],
    ['on the page, Space', ' ', nowhere, true],
  ])('%s', (_, name, place, acts) => expect(actsOnPage(name, place)).toBe(acts))
})

test('a time of today has no day, another has; none is none', () => {
  const now = new Date(2026, 4, 4, 15, 0)
  expect([timeOf(new Date(2026, 4, 4, 9, 5).getTime(), now), timeOf(new Date(2026, 4, 3, 23, 59).getTime(), now), timeOf(undefined, now)]).toEqual(['09:05', '3 May, 23:59', ''])
})

describe('what can be done is found by a few letters of what it does', () => {
  const { deeds, done } = noting()
  const actions = [...sheetActions(deeds), ...jobKeys({ ...noting().deeds as object, undo: () => void done.push('undo'), cannotUndo: () => 'Nothing was done here yet.', cannotRedo: () => null } as never)]
  const firstThree = (typed: string, target: ActionTarget | null) => findActions(actions, typed, target).slice(0, 3).map(f => f.action.keys[0] ?? f.action.says)
  test.each<[string, ActionTarget | null, string[]]>([
    ['take', 'speaker', ['x', 'Ctrl+c']], ['step', 'control', ['-', '=']], ['tap pl', null, ['P']], ['plan', null, ['P']], ['AMPL', 'rail', ['F', 'G', 'A']], ['clipp', 'rail', ['O']], ['check', null, ['k']],
    ['wiring', 'rail', ['W', 'Y', 'i']], ['nonsense', null, []], ['take back', null, ['u']], ['kápacitor'.replace('k', 'c').replace('á', 'a'), 'speaker', ['X']],
  ])('“%s” with %s chosen', (typed, target, wanted) => expect(firstThree(typed, target).slice(0, wanted.length || 1)).toEqual(wanted))
  test('nothing typed is everything, what is about the chosen first; each is there once', () => {
    const all = findActions(actions, ' ', 'control')
    expect(all).toHaveLength(actions.length)
    const about = actionsFor(actions, 'control').length
    expect(all.slice(0, about).every(f => f.action.to?.includes('control'))).toBe(true)
    expect(all[0]!.action.says).toBe('a step quieter; a part a size smaller')
  })
  test('what cannot be done says why, and what can does not', () => {
    expect(findActions(actions, 'undo', null).map(f => f.why)).toEqual(['Nothing was done here yet.'])
    expect(findActions(actions, 'redo', null).map(f => f.why)).toEqual([null])
    const only: Action = { keys: ['R'], says: 'turn the rail', group: 'wire', to: ['rail', 'many'], isOnlyTo: true, run: () => {} }
    expect([findActions([only], 'turn', 'speaker')[0]!.why, findActions([only], 'turn', 'rail')[0]!.why]).toEqual(['First choose a rail or several speakers.', null])
  })
  test('a letter means one thing to a speaker and another to a rail; without a scope of its own it holds everywhere', () => {
    const of = (says: string, more: Partial<Action>): Action => ({ keys: ['R'], says, group: 'wire', run: () => {}, ...more })
    const list = [of('everywhere', {}), of('to a rail', { to: ['rail'], isOnlyTo: true })]
    expect((['rail', 'speaker', null] as const).map(target => actionOf(list, 'R', target)?.says)).toEqual(['to a rail', 'everywhere', 'everywhere'])
    expect([actionOf(list.slice(1), 'R', 'speaker'), actionOf(list, 'Q', 'rail')]).toEqual([null, null])
  })
})
