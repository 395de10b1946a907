import { afterPaint } from './useAfterPaint'
import { defineAsyncComponent, defineComponent, h, nextTick, shallowRef, type AsyncComponentLoader, type Component } from 'vue'

type Fetch = () => Promise<unknown>

/** What is wanted later, in the order in which it was named; null once all of it was fetched: from then on each is fetched at once. */
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

/** The first page stands: what else is on it comes at once, then the other pages, one after the other and each with its parts. */
export async function fetchAllBehind(pages: readonly Fetch[]): Promise<void> {
  stand()
  await Promise.all((later?.splice(0) ?? []).map(run))
  for (const page of pages) {
    await run(page)
    await Promise.all((later?.splice(0) ?? []).map(run))
  }
  later = null
}

/** Something that is to be shown cannot be fetched: the server is away, or newer. It is tried again, by itself. */
export const isPartMissing = shallowRef(false)
const AGAIN_MS = 2000

/** Code that is fetched behind the first page, or when it is first asked for; who asks waits until it can be had. */
export function codeLater<T>(fetch: () => Promise<T>): () => Promise<T> {
  fetchBehind(() => stands.then(fetch))
  return async () => {
    for (;;) {
      await stands
      try {
        const code = await fetch()
        isPartMissing.value = false
        return code
      }
      catch {
        isPartMissing.value = true
        await new Promise(resolve => setTimeout(resolve, AGAIN_MS))
      }
    }
  }
}

/**
 * A part of a page that is fetched when it is first shown, or before. The page does not wait for it: left to itself, vue holds a page back until all such
 * parts are there (measured: the first rail of 2,000 speakers came a sixth of a second later, with nine rails laid out at once).
 */
export function fetchedLater<T extends Component>(loader: AsyncComponentLoader<T>): T {
  const part = defineAsyncComponent({
    suspensible: false,
    loader: () => {
      const coming = stands.then(loader)
      void run(async () => {
        await coming
        isPartMissing.value = false
      })
      return coming
    },
    onError: (_, retry) => {
      isPartMissing.value = true
      setTimeout(retry, AGAIN_MS)
    },
  })
  // Its own loader remembers what came: a part that came before it is shown stands with its page, not a moment later. It would remember a failure too.
  const { __asyncLoader: remember } = part as unknown as { __asyncLoader: Fetch }
  fetchBehind(async () => {
    await loader()
    await remember()
  })
  return part
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

/** Parts within parts are no deeper than this: so many frames with nothing on its way, and it does not come. */
const DEEPEST = 4
let awaited = 0
let letters = ''

/** The letters of who types already, into a field that is on its way: they are no keys of the page. Whether there is such a field. */
export function keptForField(letter: string): boolean {
  if (awaited > 0) letters += letter
  return awaited > 0
}

/** Goes into the first field or button of that kind, when the parts that it stands in are there; what was typed meanwhile is typed into it. */
export async function goInto(css: string): Promise<void> {
  awaited++
  try {
    // Looked for with every frame: what else is being fetched may take longer than the part that is meant.
    for (let idle = 0; idle < DEEPEST; idle = underWay.size > 0 ? 0 : idle + 1) {
      await nextTick()
      const element = document.querySelector<HTMLElement>(css)
      if (element) return enter(element)
      await new Promise<void>(afterPaint)
    }
  }
  finally {
    awaited--
    letters = ''
  }
}

function enter(element: HTMLElement): void {
  element.focus()
  if (!(element instanceof HTMLInputElement)) return
  element.select()
  if (letters !== '') document.execCommand('insertText', false, letters)
}
