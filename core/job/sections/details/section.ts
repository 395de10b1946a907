import { changedBack, guarded } from '../guard'
import type { Section } from '../section'
import type { detailEdits } from './edits'

export const details: Section<typeof detailEdits> = {
  name: 'details',
  keeps: 'document',
  apply: {
    'job.set': (job, edit) => ({ job: { ...job, ...guarded('the job', job, edit) }, inverse: changedBack(job, edit) }),
  },
  words: { 'job.set': 'job details' },
  fields: { name: 'name', note: 'note' },
}
