import { shallowRef } from 'vue'
import type { GearKind, Models } from '#core/gear/models'
import type { GearWhole } from '#core/gear/protocol'
import { api, ApiError } from '~/api/client'

/** Every model of a kind that is offered, for what searches among all of them; read when it is opened, since others add to the library. */
export function useWholeLibrary<K extends GearKind>(kind: K) {
  const models = shallowRef<readonly (GearWhole & { body: Models[K] })[] | null>(null)
  const problem = shallowRef('')

  async function load(): Promise<void> {
    problem.value = ''
    try {
      models.value = (await api<{ models: (GearWhole & { body: Models[K] })[] }>(`/gear/whole?kind=${kind}`)).models
    }
    catch (error) {
      if (!(error instanceof ApiError)) throw error
      problem.value = error.isAway ? 'The library is on the server, which does not answer.' : error.message
    }
  }
  void load()
  return { models, problem, load }
}
