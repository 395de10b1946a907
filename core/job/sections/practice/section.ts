import { changedBack, guarded } from '../guard'
import { none, type Section } from '../section'
import { practice as shape } from './shape'

export const practice: Section<'practice'> = {
  shape,
  edits: {
    'practice.set': {
      apply: (job, edit) => ({
        job: { ...job, practice: { ...job.practice, ...guarded('the practice', job.practice, edit) } },
        inverse: changedBack(job.practice, edit),
      }),
      makes: none, refersTo: none, words: 'rule of practice',
    },
  },
  fields: { reserve: 'reserve rule', power: 'power rule', valve: 'rule for valve outputs', stripe: 'rule for stripes' },
  lists: {},
  has: () => false,
  ids: none,
  names: none,
}
