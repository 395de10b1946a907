import { defineAsyncComponent, defineComponent, h, type AsyncComponentLoader, type Component } from 'vue'

type Fetch = () => Promise<unknown>

/** What is wanted later, in the order in which it was named; null once the first page stands: from then on each is fetched at once. */
let later: Fetch[] | null = []
const underWay = new Set<Promise<unknown>>()

function run(fetch: Fetch): Promise<unknown> {
  const done = fetch().catch(() => undefined).finally(() => underWay.delete(done))
  underWay.add(done)
  return done
}

/** Fetched behind the first page, before it is asked for: by then the server may be away. One that fails is fetched again when it is asked for. */
function fetchBehind(fetch: Fetch): void {
  if (later) later.push(fetch)
  else void run(fetch)
}

let stand: () => void
/** What is shown a moment later does not take the line from what the first page stands on. */
const stands = new Promise<void>((resolve) => { stand = resolve })

/** The first page stands: all that waits for it is fetched, one after the other, and what it names in turn. */
export async function fetchAllBehind(pages: readonly Fetch[]): Promise<void> {
  stand()
  for (const page of pages) await run(page)
  for (let next = later?.shift(); next; next = later?.shift()) await run(next)
  later = null
}

/** Code that is fetched behind the first page, or when it is first asked for. */
export function codeLater<T>(fetch: () => Promise<T>): () => Promise<T> {
  const code = () => stands.then(fetch)
  fetchBehind(code)
  return code
}

/** When all that is being fetched just now is there, or cannot be had. */
export const fetched = (): Promise<unknown> => Promise.allSettled([...underWay])

/**
 * A part of a page that is fetched when it is first shown, or before. The page does not wait for it: left to itself, vue holds a page back until all such
 * parts are there (measured: the first rail of 2,000 speakers came a sixth of a second later, with nine rails laid out at once).
 */
export function fetchedLater<T extends Component>(loader: AsyncComponentLoader<T>): T {
  const part = defineAsyncComponent({ loader: () => tracked(() => stands.then(loader)), suspensible: false })
  // Its own loader: a part that came before it is shown stands with its page, not a moment later.
  const { __asyncLoader: fetch } = part as unknown as { __asyncLoader: Fetch }
  fetchBehind(fetch)
  return part
}

async function tracked<T>(fetch: () => Promise<T>): Promise<T> {
  const coming = fetch()
  void run(() => coming)
  return coming
}

/** What opens over a page: fetched as above, made when it is first opened, and kept. */
export function openedLater<T extends Component>(loader: AsyncComponentLoader<T>): T {
  const part = fetchedLater(loader)
  return defineComponent({
    inheritAttrs: false,
    setup(_, { attrs, slots }) {
      let wasOpened = false
      return () => {
        wasOpened ||= attrs.open === true
        return wasOpened ? h(part, attrs, slots) : null
      }
    },
  }) as unknown as T
}
