import { inject, ref } from 'vue'
import { navigateTo } from '#imports'
import { useTheme } from '~/composables/useTheme'
import { OPEN_DONE, OPEN_FIND, OPEN_KEYS } from '~/stations/useJobKeys'
import { useJobStore } from '~/stores/job'
import { benchKeys } from './keys'

/** Keys that hold on every page of the bench. */
export function useBenchKeys() {
  const store = useJobStore()
  const keysOpen = inject(OPEN_KEYS, ref(false))
  const findOpen = inject(OPEN_FIND, ref(false))
  const doneOpen = inject(OPEN_DONE, ref(false))
  const common = benchKeys({
    undo: () => store.undo(),
    redo: () => store.redo(),
    cannotUndo: () => store.canUndo ? null : 'Nothing was done here yet.',
    cannotRedo: () => store.canRedo ? null : 'Nothing was taken back.',
    showDone: () => { doneOpen.value = true },
    toJobs: () => void navigateTo('/'),
    find: () => { findOpen.value = true },
    toggleNight: () => useTheme().toggle(),
    showKeys: () => { keysOpen.value = true },
  })
  return { common, keysOpen, findOpen }
}
