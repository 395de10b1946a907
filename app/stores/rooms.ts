import { shallowRef, watch } from 'vue'
import { defineStore } from 'pinia'
import { codeLater } from '~/composables/fetchedLater'
import { inSlices } from '~/composables/inSlices'
import { useEvaluationStore } from './evaluation'
import { useJobStore } from './job'

/** An edit of the wiring changes every room: they are looked at when the hand rests. */
const RESTS_MS = 300

/** Levels of rooms are not wanted for the first picture of a job. */
const levels = codeLater(() => Promise.all([import('#core/advice/spaceWords'), import('#core/advice/spaces')]))

/** Which spaces of the job fall short of their target, for the header and the stations; worked out behind the hand, in slices. */
export const useRoomsStore = defineStore('rooms', () => {
  const store = useJobStore()
  const evaluation = useEvaluationStore()
  const tooQuiet = shallowRef<readonly string[]>([])
  let timer: ReturnType<typeof setTimeout> | undefined
  let newest = 0

  watch([() => store.id, () => store.job?.spaces, () => evaluation.lines, () => evaluation.isWhole], ([id], before) => {
    clearTimeout(timer)
    const mine = ++newest
    if (id !== before[0] || !store.job?.spaces.length) tooQuiet.value = []
    if (!store.job?.spaces.length || !evaluation.isWhole) return
    timer = setTimeout(async () => {
      const [{ tooQuietSpaces }, { dropsById }] = await levels()
      if (!store.job || mine !== newest) return
      const found = await inSlices(tooQuietSpaces(store.job, dropsById(evaluation.lines)), () => mine === newest)
      if (found) tooQuiet.value = found
    }, RESTS_MS)
  }, { immediate: true })

  return { tooQuiet }
})
