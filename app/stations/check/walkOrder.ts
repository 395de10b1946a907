import { ref } from 'vue'
import type { WalkOrder } from '#core/check/walkOrder'

/** Along each line, or room by room: as it was last, in this browser. */
const KEY = 'plain-match.walk'
const order = ref<WalkOrder>('line')
let isRead = false

export function useWalkOrder() {
  if (!isRead) {
    isRead = true
    order.value = localStorage.getItem(KEY) === 'room' ? 'room' : 'line'
  }
  return {
    order,
    setOrder: (to: WalkOrder): void => {
      order.value = to
      localStorage.setItem(KEY, to)
    },
  }
}
