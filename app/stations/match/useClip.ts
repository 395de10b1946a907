import { onBeforeUnmount, onMounted, shallowRef } from 'vue'
import { USUAL_LINE_V } from '#core/amplifier/index'
import { writeTable } from '#core/format/tableOut'
import { hang, wholeNodes } from '#core/hands/many/many'
import type { Branch } from '#core/job/schema'
import type { Cable } from '#core/quantity/cable'
import { InputError } from '#core/quantity/inputError'
import { newId } from '~/api/ids'
import { placeOf } from '~/composables/useKeys'
import { useJobStore } from '~/stores/job'
import { useSelectionStore } from '~/stores/selection'
import { codeLater } from '~/composables/fetchedLater'
import { writeClip } from './clip'
import { usualCableOf } from './forms/usualCable'

const KEY = 'plain-match.clip'
/** With the grammar of the typed line, which the rails do not wait for. */
const reading = codeLater(() => import('./pasted'))

/** Takes what is chosen to the clipboard, as a table; hangs what is pasted behind what is chosen, or at the end of the rail. */
export function useClip(chooseAll: (nodeIds: readonly string[]) => void) {
  const store = useJobStore()
  const selected = useSelectionStore()
  /** A pasted table of which rows cannot be read: it is mended in a dialog. */
  const unread = shallowRef<{ text: string, usual: { lineV: number, cable: Cable | null } } | null>(null)
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

  async function onPaste(event: ClipboardEvent): Promise<void> {
    const text = event.clipboardData?.getData('text/plain') ?? ''
    const { outputId } = selected.selection
    if (isElsewhere(event) || text.trim() === '' || outputId === null) return
    event.preventDefault()
    const { branchesOf, TableError } = await reading()
    try {
      const usual = usualHere()
      await hangHere(branchesOf(text, localStorage.getItem(KEY), usual, newId))
    }
    catch (error) {
      if (!(error instanceof InputError)) throw error
      if (error instanceof TableError) unread.value = { text, usual: usualHere() }
      else store.sayNot(error.message)
    }
  }

  /** Behind what a clip is hung. */
  const lastId = () => selected.ids.at(-1) ?? selected.selection.nodeId

  /** What a table is read with that does not say it: the volts of the line that is looked at, the cable that it has. */
  function usualHere(): { lineV: number, cable: Cable | null } {
    const last = lastId()
    return { lineV: selected.line?.lineV ?? USUAL_LINE_V, cable: usualCableOf(store.opened, last === null ? [] : [last]) }
  }

  /** Hangs branches behind what is chosen, or at the end of the rail. */
  async function hangHere(read: Branch[]): Promise<void> {
    const { asKinds } = await reading()
    const { outputId } = selected.selection
    if (outputId === null) return
    const last = lastId()
    const { branches, said } = asKinds(read, store.opened.kinds)
    const { edit, nodeIds } = hang(store.opened, branches, last === null ? { outputId } : { afterId: last }, newId)
    if (!store.edit(edit)) return
    chooseAll(nodeIds)
    store.say([`${nodeIds.length} pasted`, ...said].join('. '))
  }

  const paste = (event: ClipboardEvent) => void onPaste(event)
  onMounted(() => {
    document.addEventListener('copy', onCopy)
    document.addEventListener('paste', paste)
  })
  onBeforeUnmount(() => {
    document.removeEventListener('copy', onCopy)
    document.removeEventListener('paste', paste)
  })
  return {
    unread,
    hangHere,
    /** From the menu: the browser is asked to copy, and asks this page in turn what. */
    clip: () => void document.execCommand('copy'),
  }
}
