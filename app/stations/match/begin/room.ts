import { addSpace } from '#core/hands/spaces'
import { newId } from '~/api/ids'
import { useSpaceStore } from '~/stations/space/spaceStore'
import { useJobStore } from '~/stores/job'

/** A first room, to be described; with rooms there already nothing is added. */
export function firstRoom(): void {
  const store = useJobStore()
  const spaces = useSpaceStore()
  if (store.opened.spaces.length > 0) return
  const { edit, spaceId } = addSpace(store.opened, newId)
  if (store.edit(edit)) spaces.look(spaceId)
  spaces.mode = 'change'
}
