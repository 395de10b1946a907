import { computed } from 'vue'
import { defineStore } from 'pinia'
import { proveLine, type LineProof } from '#core/check/proof'
import type { Output } from '#core/job/schema'
import { makeEvaluator, type LineEvaluation } from '#core/match/evaluate'
import { lineStateOf, stateSentence } from '#core/match/jobState'
import { useJobStore } from './job'

/** What is computed from the opened job: every line, what is proved of it, and the state of the whole. */
export const useEvaluationStore = defineStore('evaluation', () => {
  const store = useJobStore()
  const evaluate = makeEvaluator()

  const lines = computed((): LineEvaluation[] => store.job ? evaluate(store.job) : [])
  const lineById = computed(() => new Map(lines.value.map(l => [l.outputId, l])))

  // A line's proof keeps its identity while neither its wiring nor any of its own readings changes: its row is then not drawn again.
  interface Remembered { readings: unknown, repairs: unknown, proof: LineProof }
  const remembered = new WeakMap<Output, Remembered>()
  const proofs = computed((): ReadonlyMap<string, LineProof> => {
    const { job } = store
    if (!job) return new Map()
    return new Map(lines.value.map((line) => {
      const before = remembered.get(line.output)
      const [readings, repairs] = [job.readings.ofLine(line.outputId), job.repairs.ofLine(line.outputId)]
      if (before && before.readings === readings && before.repairs === repairs) return [line.outputId, before.proof]
      const proof = proveLine(job, line.output, line.predicted)
      remembered.set(line.output, { readings, repairs, proof })
      return [line.outputId, proof]
    }))
  })

  const states = computed(() => lines.value.map(line => lineStateOf(line, proofs.value.get(line.outputId)!)))
  const sentence = computed(() => stateSentence(states.value))

  return { lines, lineById, proofs, states, sentence }
})
