import { shallowRef } from 'vue'
import type { Units } from '#core/quantity/units'

const KEY = 'plain-match.units'
const units = shallowRef<Units>(typeof localStorage !== 'undefined' && localStorage.getItem(KEY) === 'imperial' ? 'imperial' : 'metric')

/** Metres or feet, as this person reads them; kept on this device. */
export function useUnits() {
  return {
    units,
    toggle: () => {
      units.value = units.value === 'metric' ? 'imperial' : 'metric'
      localStorage.setItem(KEY, units.value)
    },
  }
}
