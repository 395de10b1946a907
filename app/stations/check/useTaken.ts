import { computed, ref, watch, type Ref } from 'vue'
import type { ReadingKind } from '#core/job/schema'
import { takenOf, toneOf } from './taken'

const KEY = 'plain-match.taken'
const FIELDS = ['by', 'meter', 'leads', 'tone'] as const
// Said once, it holds for all that is read from then on, in this browser.
const fields = { by: ref(''), meter: ref(''), leads: ref(''), tone: ref('') }
let isRead = false

/** What is no tone is told where it stands, and bars no reading of the next day. */
function keepable(name: typeof FIELDS[number]): string {
  const { value } = fields[name]
  return name === 'tone' && toneOf('line-impedance', value).problem ? '' : value
}

/** Who reads, with which meter: as it was said last. */
export function useTaken(kind: Ref<ReadingKind>) {
  if (!isRead) {
    isRead = true
    const kept = (localStorage.getItem(KEY) ?? '').split('\n')
    FIELDS.forEach((name, k) => { fields[name].value = kept[k] ?? '' })
    watch(Object.values(fields), () => localStorage.setItem(KEY, FIELDS.map(name => keepable(name).replaceAll('\n', ' ')).join('\n')))
  }
  return {
    ...fields,
    taken: computed(() => takenOf(kind.value, { by: fields.by.value, meter: fields.meter.value, leads: fields.leads.value })),
    /** The meter's tone; null where it was not said, and where none is used. */
    frequencyHz: computed(() => toneOf(kind.value, fields.tone.value).frequencyHz),
  }
}
