import { shallowRef, watch, type ShallowRef } from 'vue'
import type { GearKind } from '#core/gear/models'
import type { GearRow } from '#core/gear/protocol'
import { api } from '~/api/client'

/**
 * Models of the library for a view that only asks what they cost, read once, when the view first has a use for them; without an answer
 * nothing costs anything that is known.
 */
export function useLibraryRows(kind: GearKind, isWanted: () => boolean = () => true): ShallowRef<readonly GearRow[]> {
  const rows = shallowRef<readonly GearRow[]>([])
  let isAsked = false
  watch(isWanted, async (wanted) => {
    if (!wanted || isAsked) return
    isAsked = true
    const answer = await api<{ rows: GearRow[] }>(`/gear?kind=${kind}`).catch(() => null)
    if (answer) rows.value = answer.rows
  }, { immediate: true })
  return rows
}
