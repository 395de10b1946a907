import type { Ref } from 'vue'
import { navigateTo, useRoute } from '#imports'
import type { Action } from '~/composables/action'
import { useTheme } from '~/composables/useTheme'
import { useUnits } from '~/composables/useUnits'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'
import { jobKeys } from './keys'
import { ticketAddress } from '~/bench/fromJob'
import { practiceAddress } from '~/practice/ownExercise'
import { injectOpened } from './opened'
import { addressOf } from './station'

/** Keys that hold at every station of a job. */
export function useJobKeys(): { common: Action[], keysOpen: Ref<boolean>, findOpen: Ref<boolean> } {
  const store = useJobStore()
  const selected = useSelectionStore()
  const route = useRoute()
  const { keysOpen, findOpen, doneOpen } = injectOpened()
  return {
    keysOpen,
    findOpen,
    common: jobKeys({
      find: () => { findOpen.value = true },
      cannotUndo: () => store.canUndo ? null : 'Nothing was done here yet.',
      cannotRedo: () => store.canRedo ? null : 'Nothing was taken back.',
      undo: () => store.undo(),
      redo: () => store.redo(),
      goTo: station => void navigateTo({ path: addressOf(String(route.params.id), station),
        query: selected.selection.outputId ? { line: selected.selection.outputId } : {} }),
      toPaper: () => void navigateTo(`/jobs/${String(route.params.id)}/paper`),
      toBench: () => void navigateTo(ticketAddress(String(route.params.id), store.job, selected.selection.nodeId)),
      toPractice: () => void navigateTo(practiceAddress(String(route.params.id), store.job, selected.selection.outputId)),
      toJobs: () => void navigateTo('/'),
      toggleNight: () => useTheme().toggle(),
      toggleUnits: () => {
        useUnits().toggle()
        store.say(`This job is told in ${useUnits().units.value === 'metric' ? 'metres' : 'feet'}.`)
      },
      showDone: () => { doneOpen.value = true },
      showKeys: () => { keysOpen.value = true },
    }),
  }
}
