import { onBeforeUnmount, onMounted, type Ref } from 'vue'

/** A finger that stays so long means the menu; one that moves further means to scroll. */
const LONG_PRESS_MS = 500
const STILL_PX = 10

/** The right button, or a finger that stays: `open` is asked for a menu, and says whether there is one where it was pressed. */
export function useMenuPress(place: Ref<Element | null>, open: (event: MouseEvent) => boolean): void {
  let timer: ReturnType<typeof setTimeout> | undefined
  let pressed: { x: number, y: number } | null = null
  const swallow = (event: Event) => {
    event.preventDefault()
    event.stopPropagation()
  }
  const onContext = (event: MouseEvent) => { if (open(event)) event.preventDefault() }
  const onDown = (event: PointerEvent) => {
    if (event.pointerType !== 'touch') return
    pressed = { x: event.clientX, y: event.clientY }
    timer = setTimeout(() => {
      // What lifts the finger afterwards is no press on what is there.
      if (open(event)) place.value?.addEventListener('click', swallow, { capture: true, once: true })
      setTimeout(() => place.value?.removeEventListener('click', swallow, { capture: true }), 1000)
    }, LONG_PRESS_MS)
  }
  const onMove = (event: PointerEvent) => { if (pressed && Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y) > STILL_PX) onUp() }
  const onUp = () => {
    clearTimeout(timer)
    pressed = null
  }

  onMounted(() => {
    const element = place.value as HTMLElement | null
    if (!element) return
    element.addEventListener('contextmenu', onContext)
    element.addEventListener('pointerdown', onDown)
    element.addEventListener('pointermove', onMove)
    for (const name of ['pointerup', 'pointercancel'] as const) element.addEventListener(name, onUp)
  })
  onBeforeUnmount(() => clearTimeout(timer))
}
