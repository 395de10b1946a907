import { refuse } from '../../refusal'
import { findOutput, findPlace } from '../../tree'
import { noneTaken } from '../ids'
import type { Section } from '../section'
import type { repairEdits } from './edits'
import { MOST_REPAIRS } from './schema'

export const repairs: Section<typeof repairEdits> = {
  name: 'repairs',
  keeps: 'rows',
  apply: {
    'repair.add': (job, { repair }) => {
      noneTaken(job, [repair.id])
      if (job.repairs.size >= MOST_REPAIRS) refuse({ code: 'too-many', what: 'repairs', most: MOST_REPAIRS })
      if (repair.nodeId === null) {
        if (!findOutput(job, repair.outputId)) refuse({ code: 'not-there', what: 'output', id: repair.outputId })
      }
      else if (findPlace(job, repair.nodeId)?.output.id !== repair.outputId) refuse({ code: 'not-there', what: 'speaker', id: repair.nodeId })
      return { job: { ...job, repairs: job.repairs.added(repair) }, inverse: { kind: 'repair.withdraw', repairId: repair.id, withdrawn: true } }
    },
    'repair.withdraw': (job, edit) => {
      const repair = job.repairs.get(edit.repairId) ?? refuse({ code: 'not-there', what: 'repair', id: edit.repairId })
      return { job: { ...job, repairs: job.repairs.replaced({ ...repair, withdrawn: edit.withdrawn }) }, inverse: { ...edit, withdrawn: !edit.withdrawn } }
    },
  },
  words: { 'repair.add': 'repair', 'repair.withdraw': 'repair taken back' },
  fields: {},
}
