import { computed } from 'vue'
import { writeCable, type Cable } from '#core/quantity/cable'
import { cablePrices } from '~/gear/prices'
import { useLibraryRows } from './useLibraryRows'

/** What a metre of cable costs by the library. */
export function useCablePrices() {
  const rows = useLibraryRows('cable')
  const prices = computed(() => cablePrices(rows.value))
  const modelOf = (cable: Cable) => prices.value.get(writeCable(cable)) ?? null
  return { modelOf, priceOf: (cable: Cable) => modelOf(cable)?.price ?? null }
}
