import { inject, provide, ref, type InjectionKey, type Ref } from 'vue'

/** What opens over the pages of a job, and of the bench: the page around them shows it, a key or a word of any of them opens it. */
const KEYS: InjectionKey<Ref<boolean>> = Symbol('keys dialog')
const FIND: InjectionKey<Ref<boolean>> = Symbol('what can be done')
const DONE: InjectionKey<Ref<boolean>> = Symbol('what was done')

export interface Opened { keysOpen: Ref<boolean>, findOpen: Ref<boolean>, doneOpen: Ref<boolean> }

export function provideOpened(): Opened {
  const [keysOpen, findOpen, doneOpen] = [ref(false), ref(false), ref(false)]
  provide(KEYS, keysOpen)
  provide(FIND, findOpen)
  provide(DONE, doneOpen)
  return { keysOpen, findOpen, doneOpen }
}
export const injectOpened = (): Opened => ({ keysOpen: inject(KEYS, ref(false)), findOpen: inject(FIND, ref(false)), doneOpen: inject(DONE, ref(false)) })
