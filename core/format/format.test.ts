import { describe, expect, test } from '@jest/globals'
import { InputError } from '#core/quantity/inputError'
import { JobError } from '#core/job/readJob'
import { jobOf, outputOf } from '#core/testing/jobs'
import { fileNameOf, readJobFile, writeJobFile } from './plainMatch'
import { writeSpice } from './spice'

test('a job goes out and comes in the same', () => {
  const job = jobOf('12 x 5 W + 2 x 20 W on 70 V 120 W', '(8 + 8) || 4')
  expect(readJobFile(writeJobFile(job))).toEqual(job)
})

describe('files that are no job', () => {
  const good = writeJobFile(jobOf('8'))
  test.each<[string, string, RegExp]>([
    ['empty', '', /not JSON/], ['cut short', good.slice(0, 200), /cut short/], ['a list', '[]', /./], ['a number', '7', /./],
    ['of a newer program', good.replace('"version": 1', '"version": 2'), /newer program/], ['of another kind', good.replace('plain-match job', 'x'), /another kind/],
  ])('%s', (_, text, says) => {
    expect(() => readJobFile(text)).toThrow(says)
    try {
      readJobFile(text)
    }
    catch (error) {
      expect(error instanceof InputError || error instanceof JobError).toBe(true)
    }
  })
})

test.each([['Fernhollow Glasshouses', 'Fernhollow-Glasshouses'], ['../../etc', 'etc'], ['Büro №1', 'Buro-No1'], ['///', 'job']])('the file of “%s” is %s', (name, file) =>
  expect(fileNameOf({ ...jobOf('8'), name })).toBe(`${file}.plainmatch.json`))

test('the netlist of two in series: one source, two resistors end to end', () => {
  const { text } = writeSpice({ lead: null, node: outputOf(jobOf('8 + 4')).wiring }, 'two\nlines', { headV: 10, fromHz: 1000, toHz: 1000, perDecade: 1 })
  expect(text.split('\n').slice(0, 4)).toEqual(['* two lines', 'V1 n1 0 DC 0 AC 10', 'R1 n1 n2 8.0000000000000000e+0', 'R2 n2 0 4.0000000000000000e+0'])
})
