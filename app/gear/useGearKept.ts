import { computed, type ComputedRef } from 'vue'
import { useGearChangesStore } from '~/stores/gearChanges'
import { keptWords } from './keptWords'

/** How the library's changes stand with the server, for the head of a page. */
export function useGearKept(): ComputedRef<string> {
  const changes = useGearChangesStore()
  return computed(() => {
    const { waiting, isAway, isStorageFull, sentPart } = changes
    return keptWords({ waiting: waiting.length, isAway, isStorageFull, sentPart })
  })
}
