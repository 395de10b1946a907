import { computed, shallowRef } from 'vue'
import type { Units } from '#core/quantity/units'

const KEY = 'plain-match.units'
/** As the person of this device reads where no job says otherwise. */
const usual = shallowRef<Units>(typeof localStorage !== 'undefined' && localStorage.getItem(KEY) === 'imperial' ? 'imperial' : 'metric')

/** The job that is open: what it says, and how it is told otherwise. */
interface Speaker { units: () => Units | null, set: (units: Units) => void }
const job = shallowRef<Speaker | null>(null)
export function speakFor(open: Speaker | null): void {
  job.value = open
}

const units = computed(() => job.value?.units() ?? usual.value)

/** Metres or feet: as the job that is open says; without one, or where it says nothing, as this person read last. */
export function useUnits() {
  return {
    units,
    toggle: () => {
      const other = units.value === 'metric' ? 'imperial' : 'metric'
      usual.value = other
      localStorage.setItem(KEY, other)
      job.value?.set(other)
    },
  }
}
