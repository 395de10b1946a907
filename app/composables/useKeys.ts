import { onBeforeUnmount, onMounted } from 'vue'
import type { KeyBinding } from './keyBinding'

function nameOf(event: KeyboardEvent): string {
  const named = event.key.length > 1
  return [(event.ctrlKey || event.metaKey) && 'Ctrl', named && event.shiftKey && 'Shift', event.key].filter(Boolean).join('+')
}

/** True where a key types something: keys of the page keep out. */
function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) || target.closest('[role=combobox],[role=listbox],[role=dialog]') !== null)
}

/** Keys of a page while it is shown. */
export function useKeys(bindings: () => KeyBinding[]): void {
  const onKey = (event: KeyboardEvent) => {
    if (event.defaultPrevented || event.altKey || isTyping(event.target)) return
    const name = nameOf(event)
    const binding = bindings().find(b => b.keys.includes(name))
    if (!binding) return
    // Enter and space on a button or link press that button.
    if ((name === 'Enter' || name === ' ') && event.target instanceof HTMLElement && event.target.closest('button,a')) return
    event.preventDefault()
    binding.run(event)
  }
  onMounted(() => document.addEventListener('keydown', onKey))
  onBeforeUnmount(() => document.removeEventListener('keydown', onKey))
}
