import { changedBack, guarded } from '../guard'
import { none, type Section } from '../section'
import { details as shape } from './shape'

export const details: Section<'details'> = {
  shape,
  edits: {
    'job.set': {
      apply: (job, edit) => ({ job: { ...job, ...guarded('the job', job, edit) }, inverse: changedBack(job, edit) }),
      makes: none, refersTo: none, words: 'job details',
    },
  },
  fields: { name: 'name', note: 'note', units: 'units' },
  lists: {},
  has: () => false,
  ids: none,
  names: none,
}
