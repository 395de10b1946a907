import { onBeforeUnmount, onMounted } from 'vue'
import { actionOf, type Action, type ActionTarget } from './action'
import { keptForField } from './fetchedLater'
import { actsOnPage, type FocusPlace } from './keyPlace'

function nameOf(event: KeyboardEvent): string {
  const named = event.key.length > 1
  return [(event.ctrlKey || event.metaKey) && 'Ctrl', named && event.shiftKey && 'Shift', event.key].filter(Boolean).join('+')
}

export function placeOf(target: EventTarget | null): FocusPlace {
  if (!(target instanceof HTMLElement || target instanceof SVGElement)) return { typing: false, form: false, presses: false }
  return {
    typing: (target instanceof HTMLElement && target.isContentEditable) || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) || target.closest('[role=combobox],[role=listbox],[role=dialog]') !== null,
    form: target.closest('form,[data-form]') !== null,
    presses: target.closest('button,a') !== null,
  }
}

/** Keys of a page while it is shown; `target` is what is chosen there. */
export function useKeys(bindings: () => Action[], target: () => ActionTarget | null = () => null): void {
  const onKey = (event: KeyboardEvent) => {
    if (event.defaultPrevented || event.altKey) return
    const name = nameOf(event)
    if ([...name].length === 1 && keptForField(name)) return event.preventDefault()
    const binding = actionOf(bindings(), name, target())
    if (!binding || !actsOnPage(name, placeOf(event.target))) return
    if (binding.isBrowsers) return
    event.preventDefault()
    binding.run(event)
  }
  // A choice that is pressed with the mouse is done: the keys are the page's again. One that the keys came to stays where they are.
  const onClick = (event: MouseEvent) => {
    if (event.detail > 0 && event.target instanceof Element) event.target.closest<HTMLElement>('form .tap')?.blur()
  }
  onMounted(() => {
    document.addEventListener('keydown', onKey)
    document.addEventListener('click', onClick)
  })
  onBeforeUnmount(() => {
    document.removeEventListener('keydown', onKey)
    document.removeEventListener('click', onClick)
  })
}
