import { computed, shallowRef, watch } from 'vue'
import { defineStore } from 'pinia'
import type { SuspectGroup } from '#core/trace/groups'
import type { Suspect } from '#core/trace/rank'
import { riskOf, type SwitchOnRisk } from '#core/trace/switchOn'
import { codeLater } from '~/composables/fetchedLater'
import { useSelectionStore } from '~/stores/selection'
import { shownGroups } from './shown'

const ranking = codeLater(() => Promise.all([import('#core/trace/rank'), import('#core/trace/groups')]))

/** Longest stretch of ranking between two frames. */
const SLICE_MS = 12

/** Ranked faults of the selected line, in groups that read alike; worked out only while someone looks, in slices that leave the page its frames. */
export const useTraceStore = defineStore('trace', () => {
  const selected = useSelectionStore()
  const all = shallowRef<readonly SuspectGroup[]>([])
  /** Groups of which every member is shown, by their place. */
  const opened = shallowRef<ReadonlySet<number>>(new Set())
  const groups = computed(() => shownGroups(all.value, opened.value))
  const chosenSuspect = shallowRef(0)
  const tracing = shallowRef(false)
  /** Checks are being taken: whether the amplifier may be switched on is asked even while nobody looks at suspects. */
  const checking = shallowRef(false)
  const ranked = shallowRef<readonly Suspect[] | null>(null)
  /** Share of the faults tried out; null when all are. */
  const tried = shallowRef<number | null>(null)
  let newest = 0
  /** All that is shown, in order: what a place on the rail and a number stand for. */
  const suspects = computed(() => groups.value.flatMap(g => g.suspects))

  watch(() => selected.selection.outputId, () => { chosenSuspect.value = 0 })
  /** Why the amplifier must not be switched on to the line that is looked at; null where nothing says so. */
  const risk = computed((): SwitchOnRisk | null => selected.line && selected.proof ? riskOf(selected.line.output, selected.proof, ranked.value) : null)
  /** What somebody answered for: this line with these readings and no other. */
  const answered = shallowRef('')
  const asRead = computed(() => `${selected.selection.outputId} ${[...selected.proof?.standing.values() ?? []].map(j => j.reading.id).join(' ')}`)
  const mayBeOn = computed(() => risk.value === null || answered.value === asRead.value)

  watch([tracing, checking, () => selected.line, () => selected.proof], async () => {
    // What is under way for an older state of the line ends here: it sees that it is not the newest any more.
    const mine = ++newest
    ranked.value = null
    const isWanted = tracing.value || (checking.value && (selected.proof?.wrong ?? 0) > 0)
    if (!isWanted || !selected.line || !selected.proof) {
      all.value = []
      tried.value = null
      return
    }
    const { line: { output }, proof } = selected
    const [{ rankInSteps }, { groupSuspects }] = await ranking()
    if (mine !== newest) return
    const steps = rankInSteps(output, proof)
    for (;;) {
      const until = performance.now() + SLICE_MS
      let step = steps.next()
      while (!step.done && performance.now() < until) step = steps.next()
      if (step.done) {
        ranked.value = step.value
        all.value = groupSuspects(step.value, output, proof)
        opened.value = new Set()
        tried.value = null
        return
      }
      tried.value = step.value
      await new Promise(resolve => setTimeout(resolve))
      if (mine !== newest) return
    }
  }, { immediate: true })

  const openGroup = (k: number) => { opened.value = new Set([...opened.value, k]) }

  return { groups, openGroup, suspects, chosenSuspect, tracing, checking, tried, risk, mayBeOn, answer: () => { answered.value = asRead.value } }
})
