import { expect, test } from '@jest/globals'
import { askingOf, type Asking } from './asking'

test.each<[string, Parameters<typeof askingOf>[0], Asking]>([
  ['nobody looks', { isWanted: false, isSame: true, worker: 'busy' }, 'end'], ['nobody looks any more', { isWanted: false, isSame: true, worker: 'ready' }, 'end'],
  ['a first time', { isWanted: true, isSame: false, worker: 'none' }, 'begin'], ['it was ended, and is looked at again', { isWanted: true, isSame: true, worker: 'none' }, 'begin'],
  ['another reading, while it is tried out', { isWanted: true, isSame: false, worker: 'busy' }, 'begin'], ['another line or reading, with all of it told', { isWanted: true, isSame: false, worker: 'ready' }, 'anew'],
  ['a test that cannot be done', { isWanted: true, isSame: true, worker: 'ready' }, 'ask'], ['one more, before the answer', { isWanted: true, isSame: true, worker: 'busy' }, 'wait'],
])('%s', (_, given, does) => expect(askingOf(given)).toBe(does))
