import { inject, ref, type InjectionKey, type Ref } from 'vue'
import { navigateTo, useRoute } from '#imports'
import { findOutput } from '#core/job/tree'
import { labelledOhm } from '#core/network/element'
import { writeNumber } from '#core/quantity/write'
import type { Action } from '~/composables/action'
import { useTheme } from '~/composables/useTheme'
import { useUnits } from '~/composables/useUnits'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'
import { jobKeys } from './keys'
import { addressOf } from './station'

export const OPEN_KEYS: InjectionKey<Ref<boolean>> = Symbol('keys dialog')
export const OPEN_FIND: InjectionKey<Ref<boolean>> = Symbol('what can be done')
export const OPEN_DONE: InjectionKey<Ref<boolean>> = Symbol('what was done')

/** Keys that hold at every station of a job. */
export function useJobKeys(): { common: Action[], keysOpen: Ref<boolean>, findOpen: Ref<boolean> } {
  const store = useJobStore()
  const selected = useSelectionStore()
  const route = useRoute()
  const keysOpen = inject(OPEN_KEYS, ref(false))
  const findOpen = inject(OPEN_FIND, ref(false))
  const doneOpen = inject(OPEN_DONE, ref(false))
  /** What a ticket for the chosen speaker begins with. */
  function ticketOf(jobId: string): Record<string, string> {
    const { speaker, selection } = selected
    const output = store.job && selection.outputId ? findOutput(store.job, selection.outputId)?.output : null
    if (!speaker || !output || !store.job) return {}
    const nominal = speaker.driverOhm ?? labelledOhm(speaker.load)
    return {
      from: 'job', job: jobId, node: speaker.id, says: `${store.job.name}, ${output.label} ${speaker.label}`.slice(0, 200), unit: speaker.name.slice(0, 120),
      ...nominal === null || (speaker.load.kind === 'tap' && speaker.driverOhm === null) ? {} : { ohm: writeNumber(nominal) },
    }
  }
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
      toBench: () => void navigateTo({ path: '/bench', query: ticketOf(String(route.params.id)) }),
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
