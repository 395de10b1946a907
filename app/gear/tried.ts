import { same } from '#core/quantity/same'
import type { GearKind, Model } from '#core/gear/models'

export interface NewModel { kind: GearKind, body: Model }

/** More than these are told by being the very same objects: to look through ten thousand holds the page. */
const LOOKED_THROUGH = 20

/**
 * Ids for models that are sent to the library. While it is not known that they came in, the very same models have the same ids: a second
 * press after an answer that was lost makes nothing twice.
 */
export function makeTried(newId: () => string) {
  let tried: { models: readonly NewModel[], ids: string[] } | null = null
  const isSame = (models: readonly NewModel[]) => tried !== null && tried.models.length === models.length && models.every(({ kind, body }, k) => {
    const before = tried!.models[k]!
    return kind === before.kind && (body === before.body || (models.length <= LOOKED_THROUGH && same(body, before.body)))
  })
  return {
    idsFor(models: readonly NewModel[]): string[] {
      if (!isSame(models)) tried = { models, ids: models.map(newId) }
      return tried!.ids
    },
    /** They are in: the same once more would be others. */
    cameIn: () => { tried = null },
  }
}
