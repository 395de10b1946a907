import { computed, shallowRef } from 'vue'
import { defineStore } from 'pinia'
import { polarityOf } from '#core/polarity/report'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'

/** Which way round the speakers of the opened job are, and which end of a lead is looked at. */
export const useWireStore = defineStore('wire', () => {
  const store = useJobStore()
  const selected = useSelectionStore()
  const report = computed(() => store.job ? polarityOf(store.job) : null)
  /** The beginning of the lead that is selected, or its terminals. */
  const part = shallowRef<'start' | 'end'>('start')
  /** The joint that is looked at, where the selected node has it. */
  const joint = computed(() => {
    const { outputId, nodeId } = selected.selection
    const line = report.value?.leaves.find(leaf => leaf.line.output.id === outputId)?.line
    const found = line?.joints.find(j => j.nodeId === nodeId && j.at === part.value) ?? line?.joints.find(j => j.nodeId === nodeId && j.at === 'start')
    return line && found ? { line, joint: found } : null
  })
  /** Groups that hear the line that is looked at, those that disagree first; of no line all. */
  const groups = computed(() => {
    const all = report.value?.groups ?? []
    const { outputId } = selected.selection
    const here = outputId === null ? all : all.filter(group => group.leaves.some(leaf => leaf.line.output.id === outputId))
    const rank = { apart: 0, open: 1, alike: 2 }
    return [...here].sort((a, b) => rank[a.is] - rank[b.is])
  })
  return { report, part, joint, groups }
})
