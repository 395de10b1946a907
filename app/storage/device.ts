import { openDB, type IDBPDatabase } from 'idb'
import { makeShelf, type Store } from './shelf'

/**
 * The browser's database: what a person did and the server does not have yet, and jobs for when it is away. Settings of a view (theme, units) stay in
 * localStorage: losing them loses no work, and they are wanted before the first picture.
 */
const NAME = 'plain-match'
const VERSION = 3
const SHELVES = ['edits', 'gear', 'photos', 'jobs', 'jobList'] as const
type ShelfName = typeof SHELVES[number]

let opening: Promise<IDBPDatabase> | null = null

function database(): Promise<IDBPDatabase> {
  opening ??= openDB(NAME, VERSION, {
    upgrade: (db) => { for (const shelf of SHELVES) if (!db.objectStoreNames.contains(shelf)) db.createObjectStore(shelf) },
    // A newer page wants to bring it up: this one lets go, and is told when it next wants to write.
    blocking: (_before, _blocked, event) => {
      opening = null
      ;(event.target as IDBDatabase).close()
    },
    terminated: () => { opening = null },
  }).catch((error: unknown) => {
    opening = null
    throw error
  })
  return opening
}

/** Written through to the disk, and told at once that nothing follows: a page that is closed in the very moment has sent all of it by then. */
function storeOf(name: ShelfName): Store {
  const change = async (write: (store: { put: (text: string, key: string) => unknown, delete: (key: string) => unknown }) => void): Promise<void> => {
    const tx = (await database()).transaction(name, 'readwrite', { durability: 'strict' })
    write(tx.store)
    tx.commit()
    await tx.done
  }
  return {
    put: entries => change((store) => { for (const [key, text] of entries) store.put(text, key) }),
    remove: keys => change((store) => { for (const key of keys) store.delete(key) }),
    all: async () => {
      const tx = (await database()).transaction(name)
      const [keys, texts] = await Promise.all([tx.store.getAllKeys(), tx.store.getAll()])
      return keys.map((key, k) => [String(key), String(texts[k])])
    },
  }
}

/** What the server has as well: kept for when it is away. No memory before it: what cannot be kept is not lost. */
function copiesOf(name: ShelfName) {
  const { put, remove } = storeOf(name)
  return { put, remove, get: async (key: string): Promise<string | null> => await (await database()).get(name, key) as string | undefined ?? null }
}
export const jobBodies = copiesOf('jobs')
export const jobList = copiesOf('jobList')

export const editShelf = makeShelf(storeOf('edits'))
export const gearShelf = makeShelf(storeOf('gear'))
export const photoShelf = makeShelf(storeOf('photos'))

/** Something that was done is neither on this device nor on the server: a page that is left now takes it along. */
export const isAnythingUnkept = (): boolean => editShelf.isUnkept() || gearShelf.isUnkept() || photoShelf.isUnkept()
