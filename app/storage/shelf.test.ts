import { expect, test } from '@jest/globals'
import { makeShelf, type Store } from './shelf'

/** A store that does as it is told: takes, refuses, or never answers. */
function storeThat(): { store: Store, kept: Map<string, string>, is: { doing: 'takes' | 'refuses' | 'hangs' } } {
  const kept = new Map<string, string>()
  const is: { doing: 'takes' | 'refuses' | 'hangs' } = { doing: 'takes' }
  const act = async (run: () => void) => {
    if (is.doing === 'refuses') throw new Error('full')
    if (is.doing === 'hangs') await new Promise(() => {})
    run()
  }
  return {
    kept, is,
    store: {
      put: entries => act(() => { for (const [key, text] of entries) kept.set(key, text) }),
      remove: keys => act(() => { for (const key of keys) kept.delete(key) }),
      all: async () => {
        await act(() => {})
        return [...kept]
      },
    },
  }
}

test('what is put in is kept, and the page holds nothing of it any more', async () => {
  const { store, kept } = storeThat()
  const shelf = makeShelf(store)
  const putting = shelf.put([['a', '1'], ['b', '2']])
  // From the first moment on it is there, and leaving would lose it.
  expect([shelf.isUnkept(), await shelf.all()]).toEqual([true, [['a', '1'], ['b', '2']]])
  expect([await putting, shelf.isUnkept(), [...kept]]).toEqual([true, false, [['a', '1'], ['b', '2']]])
  await shelf.remove(['a'])
  expect(await shelf.all()).toEqual([['b', '2']])
})

test.each(['refuses', 'hangs'] as const)('a store that %s: told, nothing lost while the page stays, and put in with the next once it takes again', async (doing) => {
  const { store, kept, is } = storeThat()
  const shelf = makeShelf(store, 20)
  is.doing = doing
  expect([await shelf.put([['a', '1'], ['b', '2']]), shelf.isUnkept(), await shelf.all()]).toEqual([false, true, [['a', '1'], ['b', '2']]])
  // What the server has meanwhile need not be kept.
  if (doing === 'refuses') await shelf.remove(['b'])
  else void shelf.remove(['b'])
  is.doing = 'takes'
  expect([await shelf.put([['c', '3']]), shelf.isUnkept(), [...kept]]).toEqual([true, false, [['a', '1'], ['c', '3']]])
})

test('put in again while the first is on its way: the newer stays', async () => {
  const { store, kept } = storeThat()
  const shelf = makeShelf(store)
  const both = [shelf.put([['a', '1']]), shelf.put([['a', '2']])]
  expect([await Promise.all(both), shelf.isUnkept(), [...kept], await shelf.all()]).toEqual([[true, true], false, [['a', '2']], [['a', '2']]])
})

test('put in again, and that could not be kept: the newer is not forgotten with the older', async () => {
  const { store, is } = storeThat()
  const shelf = makeShelf(store)
  const first = shelf.put([['a', '1']])
  is.doing = 'refuses'
  const second = shelf.put([['a', '2']])
  is.doing = 'takes'
  expect([await first, await second, shelf.isUnkept(), await shelf.all()]).toEqual([true, false, true, [['a', '2']]])
})

test('all that could not be kept is on the server: nothing is wrong any more', async () => {
  const { store, is } = storeThat()
  const shelf = makeShelf(store)
  is.doing = 'refuses'
  await shelf.put([['a', '1']])
  await shelf.remove(['a'])
  expect(shelf.isUnkept()).toBe(false)
})
