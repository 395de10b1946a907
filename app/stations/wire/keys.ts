import type { Action } from '~/composables/action'

/** What is done at the wires. */
export interface WireDeeds {
  along: (by: 1 | -1) => void
  otherLine: (by: 1 | -1) => void
  otherEnd: () => void
  name: () => void
  cross: () => void
  runOn: () => void
  likeLine: () => void
  coils: () => void
  forget: () => void
  read: () => void
  bareRun: () => void
  schedule: () => void
  rack: () => void
  harness: () => void
  practice: () => void
  toSheet: () => void
  leave: () => void
}

/** Everything that can be done at the wires, in the order in which it is shown. */
export function wireActions(deeds: WireDeeds): Action[] {
  const lead = ['speaker', 'control'] as const
  return [
    { keys: ['n', 'Enter'], says: 'name the pair of this lead', also: 'colours conductors stripe', group: 'change', to: lead, row: 'name the pair', run: deeds.name },
    { keys: ['x'], says: 'cross the pair here, or uncross it', also: 'swap reverse splice', group: 'change', to: lead, row: 'cross here', run: deeds.cross },
    { keys: ['o'], says: 'the same pair runs on behind it', group: 'change', to: lead, row: 'runs on', run: deeds.runOn },
    { keys: ['c'], says: 'coils of this unit, each by itself', group: 'change', to: ['speaker'], run: deeds.coils },
    { keys: ['Delete'], says: 'nothing is known of this lead', also: 'forget', group: 'change', to: lead, run: deeds.forget },
    { keys: ['l'], says: 'this line like the one before it', also: 'copy a harness', group: 'wire', to: ['rail', ...lead], row: 'like the line before', run: deeds.likeLine },
    { keys: ['r'], says: 'read which way round it is', also: 'polarity battery', group: 'read', to: ['speaker'], row: 'read polarity', run: deeds.read },
    { keys: ['b'], says: 'which conductor is which: battery and meter', also: 'bare run harness trips unknown colours', group: 'read', to: ['rail', ...lead], row: 'which is which', run: deeds.bareRun },
    { keys: ['D'], says: 'cable schedule: ends, sizes, conductors, tags', also: 'cut list labels', group: 'build', to: ['rail', ...lead], row: 'schedule', run: deeds.schedule },
    { keys: ['R'], says: 'the rack: what comes in, which conductor on which terminal', also: 'sources inputs terminals mixer paging microphone', group: 'build', to: ['rail', ...lead], row: 'rack', run: deeds.rack },
    { keys: ['H'], says: 'a harness or a printed list of terminals: take it, or keep it', also: 'map pinout plug library', group: 'wire', to: ['rail', ...lead], row: 'harness', run: deeds.harness },
    { keys: ['g'], says: 'which of a pair is plus on this job', also: 'stripe convention rule', group: 'change', to: ['rail', ...lead], row: 'which is plus', run: deeds.practice },
    { keys: ['i'], says: 'the same on the run sheet', group: 'about', to: ['speaker', 'rail'], run: deeds.toSheet },
    { keys: ['ArrowLeft', 'ArrowRight'], says: 'lead before, next lead', group: 'about', run: e => deeds.along(e.key === 'ArrowRight' ? 1 : -1) },
    { keys: ['ArrowUp', 'ArrowDown'], says: 'line before, next line', group: 'about', run: e => deeds.otherLine(e.key === 'ArrowDown' ? 1 : -1) },
    { keys: ['e'], says: 'its other end: joint or terminals', group: 'about', to: lead, run: deeds.otherEnd },
    { keys: ['Escape'], says: 'no lead chosen', group: 'about', run: deeds.leave },
  ]
}

/** The same with the mouse, for the key list. */
export const WIRE_MOUSE_WORDS: readonly (readonly [string, string])[] = [
  ['press a joint', 'look at the beginning of that lead'], ['press a tag', 'look at its terminals'],
]
