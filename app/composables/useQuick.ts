import { computed, shallowRef, watch, type Ref } from 'vue'
import { InputError } from '#core/quantity/inputError'
import type { Quick } from '#core/quick/answer'
import { codeLater } from './fetchedLater'

/** The grammar of the typed line and all that answers it: fetched where a line is typed, and behind every page. */
const answers = shallowRef<typeof import('#core/quick/answer') | null>(null)
const answering = codeLater(async () => { answers.value = await import('#core/quick/answer') })

/** The answer to a typed line while it is typed; the last good one stays on view while the line is being mended. */
export function useQuick(text: Ref<string>) {
  watch(text, (typed) => { if (typed !== '' && answers.value === null) void answering() }, { immediate: true })

  const lastGood = shallowRef<Quick | null>(null)
  const outcome = computed((): { quick: Quick | null, error: InputError | null } => {
    if (answers.value === null) return { quick: null, error: null }
    try {
      return { quick: answers.value.quick(text.value), error: null }
    }
    catch (error) {
      if (error instanceof InputError) return { quick: null, error }
      throw error
    }
  })
  const shown = computed(() => {
    if (outcome.value.quick) lastGood.value = outcome.value.quick
    else if (text.value.trim() === '') lastGood.value = null
    return outcome.value.quick ?? lastGood.value
  })
  const error = computed(() => outcome.value.error)
  /** What could be typed on at the end. */
  const next = computed((): readonly string[] => {
    if (error.value) return error.value.position >= text.value.trimEnd().length ? error.value.expected : []
    return outcome.value.quick?.line.next ?? []
  })
  return { shown, error, next }
}
