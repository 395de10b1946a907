/** Texts under keys, as a database of the browser keeps them. */
export interface Store {
  put: (entries: readonly (readonly [string, string])[]) => Promise<unknown>
  remove: (keys: readonly string[]) => Promise<unknown>
  all: () => Promise<(readonly [string, string])[]>
}

/** Slower than this, a store is as good as closed: the person is told. */
const SLOW_MS = 5000

/**
 * What a device keeps, with the page's memory before it: what is put in is there from that moment, and is let go from memory when the store
 * has it. A store that is full or closed loses nothing while the page stays, and whoever asks is told.
 */
export function makeShelf(store: Store, slowMs = SLOW_MS) {
  const memory = new Map<string, string>()
  let isRefused = false

  async function put(entries: readonly (readonly [string, string])[]): Promise<boolean> {
    for (const [key, text] of entries) memory.set(key, text)
    // What an earlier time could not be put in goes along.
    const all = isRefused ? [...memory] : entries
    try {
      await inTime(store.put(all), slowMs)
      for (const [key, text] of all) if (memory.get(key) === text) memory.delete(key)
      isRefused = false
    }
    catch {
      isRefused = memory.size > 0
    }
    return !isRefused
  }

  return {
    put,
    async remove(keys: readonly string[]): Promise<void> {
      for (const key of keys) memory.delete(key)
      if (memory.size === 0) isRefused = false
      // What stays behind is sent once more, and counts once.
      if (keys.length > 0) await store.remove(keys).catch(() => undefined)
    },
    async all(): Promise<[string, string][]> {
      const kept = await inTime(store.all(), slowMs).catch(() => [])
      return [...new Map([...kept, ...memory])]
    },
    isUnkept: () => memory.size > 0,
  }
}

async function inTime<T>(work: Promise<T>, ms: number): Promise<T> {
  let timer: ReturnType<typeof setTimeout> | undefined
  const late = new Promise<never>((_, reject) => { timer = setTimeout(() => reject(new Error('too slow')), ms) })
  return Promise.race([work, late]).finally(() => clearTimeout(timer))
}
