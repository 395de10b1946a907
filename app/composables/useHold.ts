import { shallowRef, type Ref } from 'vue'

/** So long a second press in the same place is the end of the first: a thumb that is not sure presses twice. */
const HOLD_MS = 900
/** Shared by all that hold: what was pressed is gone, and what stands in its place now must not take the second press. */
const isHeld = shallowRef(false)
let timer: ReturnType<typeof setTimeout> | undefined

/** Of deeds after which another thing stands in the same place: `hold` when one is done, and none of them can be pressed for a moment. */
export function useHold(): { isHeld: Readonly<Ref<boolean>>, hold: () => void } {
  return {
    isHeld,
    hold: () => {
      isHeld.value = true
      clearTimeout(timer)
      timer = setTimeout(() => { isHeld.value = false }, HOLD_MS)
    },
  }
}
