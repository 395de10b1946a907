import { inject, ref, type InjectionKey, type Ref } from 'vue'
import { navigateTo, useRoute } from '#imports'
import { useJobStore } from '~/stores/job'
import type { KeyBinding } from './useKeys'
import { useTheme } from './useTheme'

export const OPEN_KEYS: InjectionKey<Ref<boolean>> = Symbol('keys dialog')

/** Keys that hold at every station of a job. */
export function useJobKeys(): { common: KeyBinding[], keysOpen: Ref<boolean> } {
  const store = useJobStore()
  const route = useRoute()
  const keysOpen = inject(OPEN_KEYS, ref(false))
  const base = () => `/jobs/${String(route.params.id)}`
  return {
    keysOpen,
    common: [
      { keys: ['u', 'Ctrl+z'], says: 'undo', run: () => store.undo() },
      { keys: ['U', 'Ctrl+Z', 'Ctrl+y'], shown: 'U', says: 'redo', run: () => store.redo() },
      { keys: ['v'], says: 'to the run sheet', run: () => void navigateTo(base()) },
      { keys: ['k'], says: 'to the checks', run: () => void navigateTo({ path: `${base()}/check`, query: route.query.line ? { line: route.query.line } : {} }) },
      { keys: ['j'], says: 'all jobs', run: () => void navigateTo('/') },
      { keys: ['n'], says: 'night or day', run: () => useTheme().toggle() },
      { keys: ['?'], says: 'these keys', run: () => { keysOpen.value = true } },
    ],
  }
}
