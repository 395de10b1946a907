import { ref } from 'vue'
import type { MeterQuantity } from '#core/meter/scpi'
import type { WireReading } from '~/meter/readByWire'
import { useWire } from '~/meter/useWire'

/** A reading of what lies between the meter's leads, of no job. */
export function useBareWire(quantity: MeterQuantity, take: (read: WireReading) => void, refuse: (why: string) => void) {
  const metersOpen = ref(false)
  return { metersOpen, ...useWire(wire => wire.readBareByWire(quantity), { take, refuse, noMeter: () => { metersOpen.value = true } }) }
}
