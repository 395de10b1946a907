import { ref } from 'vue'
import { ApiError } from '~/api/client'
import { codeLater } from '~/composables/fetchedLater'
import type { ByWire, WireReading } from './readByWire'

type Wire = typeof import('./readByWire')
const later = codeLater((): Promise<Wire> => import('./readByWire'))

export interface WireTakes {
  take: (read: WireReading) => void | Promise<void>
  refuse: (why: string) => void
  noMeter: () => void
}

/**
 * A reading by wire: the meter is asked behind the page, once at a time. What it says stands in a field; the hand that holds the leads records it. An answer
 * that comes when another place (`at`) is looked at is not for that.
 */
export function useWire(ask: (wire: Wire) => Promise<ByWire>, { take, refuse, noMeter }: WireTakes, at: () => string = () => '') {
  const isReading = ref(false)
  async function read(): Promise<void> {
    if (isReading.value) return
    const asked = at()
    refuse('')
    isReading.value = true
    try {
      const got = await ask(await later())
      if (asked !== at()) return
      if (got === 'no-meter') noMeter()
      else if ('why' in got) refuse(got.why)
      else await take(got)
    }
    catch (error) {
      if (!(error instanceof ApiError)) throw error
      if (asked === at()) refuse(error.isAway ? 'The meter is read by way of the server, which does not answer. Type what it shows.' : error.message)
    }
    finally {
      isReading.value = false
    }
  }
  return { isReading, read }
}
