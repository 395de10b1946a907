import { ref } from 'vue'
import type { MeterQuantity } from '#core/meter/scpi'
import { ApiError } from '~/api/client'
import { codeLater } from '~/composables/fetchedLater'
import type { WireReading } from '~/meter/readByWire'

const wire = codeLater(() => import('~/meter/readByWire'))

/** A reading of what lies between the meter's leads, of no job. What it says stands in a field; the hand that holds the leads records it. */
export function useBareWire(quantity: MeterQuantity, take: (read: WireReading) => void, refuse: (why: string) => void) {
  const isReading = ref(false)
  const metersOpen = ref(false)
  async function read(): Promise<void> {
    refuse('')
    isReading.value = true
    try {
      const got = await (await wire()).readBareByWire(quantity)
      if (got === 'no-meter') metersOpen.value = true
      else if ('why' in got) refuse(got.why)
      else take(got)
    }
    catch (error) {
      if (!(error instanceof ApiError)) throw error
      refuse(error.isAway ? 'The meter is read by way of the server, which does not answer. Type what it shows.' : error.message)
    }
    finally {
      isReading.value = false
    }
  }
  return { isReading, metersOpen, read }
}
