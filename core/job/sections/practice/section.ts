import { changedBack, guarded } from '../guard'
import type { Section } from '../section'
import type { practiceEdits } from './edits'

export const practice: Section<typeof practiceEdits> = {
  name: 'practice',
  keeps: 'document',
  apply: {
    'practice.set': (job, edit) => ({
      job: { ...job, practice: { ...job.practice, ...guarded('the practice', job.practice, edit) } },
      inverse: changedBack(job.practice, edit),
    }),
  },
  words: { 'practice.set': 'rule of practice' },
  fields: { reserve: 'reserve rule', power: 'power rule', valve: 'rule for valve outputs' },
}
