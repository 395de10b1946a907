import { onBeforeUnmount, onMounted } from 'vue'
import { writeTable } from '#core/format/table'
import { hang, wholeNodes } from '#core/hands/many/many'
import { InputError } from '#core/quantity/inputError'
import { newId } from '~/api/ids'
import { placeOf } from '~/composables/useKeys'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'
import { asKinds, branchesOf, writeClip } from './pasted'
import { usualCableOf } from './forms/usualCable'

const KEY = 'plain-match.clip'

/** Takes what is chosen to the clipboard, as a table; hangs what is pasted behind what is chosen, or at the end of the rail. */
export function useClip(chooseAll: (nodeIds: readonly string[]) => void) {
  const store = useJobStore()
  const selected = useSelectionStore()
  const isElsewhere = (event: Event) => placeOf(event.target).typing || !store.job

  function onCopy(event: ClipboardEvent): void {
    if (isElsewhere(event) || selected.ids.length === 0 || !event.clipboardData || !window.getSelection()?.isCollapsed) return
    const branches = wholeNodes(store.opened, selected.ids)
    const text = writeTable(branches)
    event.clipboardData.setData('text/plain', text)
    event.preventDefault()
    try {
      localStorage.setItem(KEY, writeClip(text, branches))
    }
    catch { /* Its groups are then not kept; the table is all the same. */ }
    store.say(`${selected.ids.length} taken: paste them where they shall hang, here, in another job or in a spreadsheet`)
  }

  function onPaste(event: ClipboardEvent): void {
    const text = event.clipboardData?.getData('text/plain') ?? ''
    const { outputId, nodeId } = selected.selection
    if (isElsewhere(event) || text.trim() === '' || outputId === null) return
    event.preventDefault()
    const last = selected.ids.at(-1) ?? nodeId
    try {
      const usual = { lineV: selected.line?.lineV ?? null, cable: usualCableOf(store.opened, last === null ? [] : [last]) }
      const { branches, said } = asKinds(branchesOf(text, localStorage.getItem(KEY), usual, newId), store.opened.kinds)
      const { edit, nodeIds } = hang(store.opened, branches, last === null ? { outputId } : { afterId: last }, newId)
      if (store.edit(edit)) {
        chooseAll(nodeIds)
        store.say([`${nodeIds.length} pasted`, ...said].join('. '))
      }
    }
    catch (error) {
      if (!(error instanceof InputError)) throw error
      store.sayNot(error.message)
    }
  }

  onMounted(() => {
    document.addEventListener('copy', onCopy)
    document.addEventListener('paste', onPaste)
  })
  onBeforeUnmount(() => {
    document.removeEventListener('copy', onCopy)
    document.removeEventListener('paste', onPaste)
  })
  return {
    /** From the menu: the browser is asked to copy, and asks this page in turn what. */
    clip: () => void document.execCommand('copy'),
  }
}
