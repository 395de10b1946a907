import { refuse } from '../../refusal'
import type { Job } from '../../schema'
import { findOutput, findSpeaker } from '../../tree'
import { valid } from '../guard'
import { noneTaken } from '../ids'
import type { Section } from '../section'
import type { readingEdits } from './edits'
import { checkValue, isSamePlace, MOST_READINGS, type Reading } from './schema'

export const readings: Section<typeof readingEdits> = {
  name: 'readings',
  keeps: 'rows',
  apply: {
    'reading.add': (job, { reading }) => {
      noneTaken(job, [reading.id])
      if (job.readings.size >= MOST_READINGS) refuse({ code: 'too-many', what: 'readings', most: MOST_READINGS })
      if (!findOutput(job, reading.outputId)) refuse({ code: 'not-there', what: 'output', id: reading.outputId })
      if (reading.nodeId !== null && findSpeaker(job, reading.nodeId)?.output.id !== reading.outputId) {
        refuse({ code: 'not-there', what: 'speaker', id: reading.nodeId })
      }
      valid(() => checkValue(reading, 'reading'))
      supersedesOnce(job, reading)
      return { job: { ...job, readings: job.readings.added(reading) }, inverse: { kind: 'reading.withdraw', readingId: reading.id, withdrawn: true } }
    },
    'reading.withdraw': (job, edit) => {
      const reading = job.readings.get(edit.readingId) ?? refuse({ code: 'not-there', what: 'reading', id: edit.readingId })
      const changed = { ...reading, withdrawn: edit.withdrawn }
      supersedesOnce(job, changed)
      return { job: { ...job, readings: job.readings.replaced(changed) }, inverse: { ...edit, withdrawn: !edit.withdrawn } }
    },
  },
  words: { 'reading.add': 'reading', 'reading.withdraw': 'reading taken back' },
  fields: {},
}

/** A reading corrects one of its own place and kind, and each is corrected once: the next correction corrects the correction. */
function supersedesOnce(job: Job, reading: Reading): void {
  if (reading.supersedes === null || reading.withdrawn) return
  const earlier = job.readings.get(reading.supersedes) ?? refuse({ code: 'not-there', what: 'reading', id: reading.supersedes })
  if (!isSamePlace(earlier, reading)) refuse({ code: 'not-valid', message: 'A reading corrects an earlier one of the same place and kind.' })
  const taken = job.readings.ofLine(reading.outputId).some(r => r.id !== reading.id && !r.withdrawn && r.supersedes === reading.supersedes)
  if (taken) refuse({ code: 'corrected-already', id: reading.supersedes })
}
