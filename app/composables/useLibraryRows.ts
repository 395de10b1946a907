import { onMounted, shallowRef, type ShallowRef } from 'vue'
import type { GearKind } from '#core/gear/models'
import type { GearRow } from '#core/gear/protocol'
import { api } from '~/api/client'

/** Models of the library for a view that only asks what they cost; without an answer nothing costs anything that is known. */
export function useLibraryRows(kind: GearKind): ShallowRef<readonly GearRow[]> {
  const rows = shallowRef<readonly GearRow[]>([])
  onMounted(async () => {
    const answer = await api<{ rows: GearRow[] }>(`/gear?kind=${kind}`).catch(() => null)
    if (answer) rows.value = answer.rows
  })
  return rows
}
