import { reactive, watch } from 'vue'
import { z } from 'zod'

/**
 * What was typed on a walk with the level meter and is not recorded yet, by its line: a phone that is put into a pocket forgets a page, and the walk is not
 * gone twice.
 */
const keyOf = (outputId: string) => `plain-match.levels.${outputId}`
const draftSchema = z.array(z.tuple([z.string(), z.string()]))
const known = new Map<string, Map<string, string>>()

export function levelDraft(outputId: string): Map<string, string> {
  const before = known.get(outputId)
  if (before) return before
  const draft = reactive(new Map(readDraft(localStorage.getItem(keyOf(outputId)))))
  watch(draft, () => {
    const typed = [...draft].filter(([, text]) => text.trim() !== '')
    if (typed.length === 0) localStorage.removeItem(keyOf(outputId))
    else localStorage.setItem(keyOf(outputId), JSON.stringify(typed))
  })
  known.set(outputId, draft)
  return draft
}

/** Anything else that lies there is no draft. */
export function readDraft(text: string | null): [string, string][] {
  try {
    return draftSchema.parse(JSON.parse(text ?? '[]'))
  }
  catch {
    return []
  }
}
