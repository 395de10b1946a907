import { changedBack, guarded } from '../guard'
import { none, type Section } from '../section'
import { checks as shape } from './shape'

export const checks: Section<'checks'> = {
  shape,
  edits: {
    'checks.set': {
      apply: (job, edit) => ({ job: { ...job, checks: { ...job.checks, ...guarded('the checks', job.checks, edit) } }, inverse: changedBack(job.checks, edit) }),
      makes: none, refersTo: none, words: 'what is to be checked',
    },
  },
  fields: { coils: 'coils to read', sounds: 'speakers to hear', polarity: 'polarity to prove', pairs: 'bare pairs to read', again: 'day to check again' },
  lists: {},
  has: () => false,
  ids: none,
  names: none,
}
