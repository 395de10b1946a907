import { navigateTo } from '#imports'
import { useTheme } from '~/composables/useTheme'
import { injectOpened } from '~/stations/opened'
import { useJobStore } from '~/stores/job'
import { benchKeys } from './keys'

/** Keys that hold on every page of the bench. */
export function useBenchKeys() {
  const store = useJobStore()
  const { keysOpen, findOpen, doneOpen } = injectOpened()
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
