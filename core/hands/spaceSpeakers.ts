import { partsOf, together, type Edit } from '#core/job/edits'
import type { Job, Space } from '#core/job/schema'
import { giveKind, kindOfModel, type LibraryModel } from './kinds'
import type { NewId } from './intents'
import { tapEach } from './many/many'
import { setSpace, speakerAt } from './spaces'

const hungIn = (job: Job, space: Space): string[] => space.spots.flatMap(s => speakerAt(job, s)?.speaker.id ?? [])

/** The speaker of a space, and of all that hang in it already, is that of the library now; its tap is the lowest until it is set. */
export function giveSpace(job: Job, space: Space, taken: LibraryModel, lineVOf: (nodeId: string) => number | null, newId: NewId): Edit | null {
  const { job: withKind, kindId, add } = kindOfModel(job, taken, newId)
  const given = giveKind(withKind, hungIn(job, space), kindId, lineVOf)
  const set = setSpace(space, { kindId, tapW: null })
  return together([...add, ...given ? partsOf(given) : [], ...set ? partsOf(set) : []])
}

/** All of a space on one tap, those that hang and those that are to. */
export function tapSpace(job: Job, space: Space, tapW: number): Edit | null {
  const { edit } = tapEach(job, hungIn(job, space), tapW)
  const planned = setSpace(space, { tapW })
  return together([...edit ? partsOf(edit) : [], ...planned ? partsOf(planned) : []])
}
