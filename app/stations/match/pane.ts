import { computed, shallowRef } from 'vue'
import { defineStore } from 'pinia'
import type { OfferedRemedy, remediesFor } from '#core/advice/remedies/index'
import type { Finding } from '#core/line/finding'
import { newId } from '~/api/ids'
import { codeLater } from '~/composables/fetchedLater'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'

/** What can be done is said a moment after what is found: it tries other wirings, with code of its own. */
const maker = shallowRef<typeof remediesFor | null>(null)
const making = codeLater(async () => { maker.value = (await import('#core/advice/remedies/index')).remediesFor })

export type PaneMode = 'findings' | 'change' | 'check' | 'trace'

/** What the pane beside the run sheet shows of the selection. */
export const useMatchPaneStore = defineStore('matchPane', () => {
  const store = useJobStore()
  const selected = useSelectionStore()
  if (maker.value === null) void making()
  const mode = shallowRef<PaneMode>('findings')
  /** In a narrow window the pane is a sheet over the foot of the rails: out of the way, its head alone, or drawn up. */
  const drawn = shallowRef<'away' | 'head' | 'up'>('away')

  /** Findings of the selected line with what can be done, those of the selected speaker first. */
  const findings = computed((): { finding: Finding, remedies: OfferedRemedy[] }[] => {
    const { job } = store
    const current = selected.line
    if (!job || !current) return []
    const { nodeId } = selected.selection
    const make = maker.value
    const own = (f: Finding) => f.nodeId !== null && f.nodeId === nodeId ? 0 : 1
    return [...current.findings].sort((a, b) => own(a) - own(b)).map(finding => ({ finding, remedies: make?.({ job, line: current, finding, newId }) ?? [] }))
  })
  const remedies = computed(() => findings.value.flatMap(f => f.remedies))

  return { mode, drawn, findings, remedies }
})
