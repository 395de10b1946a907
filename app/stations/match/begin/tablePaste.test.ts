import { expect, test } from '@jest/globals'
import { counter } from '#core/testing/jobs'
import { EXAMPLE_TABLE, lookAt } from './tablePaste'

const look = (text: string) => {
  const { rows, branches, bad, says } = lookAt(text, { lineV: 70.71, cable: null }, counter('t'))
  return [rows.length, branches.length, bad, says]
}
test.each<[string, unknown[]]>([
  ['', [0, 0, 0, '']],
  [EXAMPLE_TABLE, [2, 2, 0, '2 speakers can be hung.']],
  ['tap\tlength\n5 W\tfar\n5 W\t6 m', [2, 1, 1, '1 speaker can be hung; 1 row cannot be read: mend it above, or leave it out.']],
  ['tap\tlength\n5 W\tfar\nx\t6 m\n5 W\t', [3, 1, 2, '1 speaker can be hung; 2 rows cannot be read: mend them above, or leave them out.']],
  ['label\ttap', [0, 0, 0, 'It has column names and no rows.']],
])('%j', (text, expected) => expect(look(text)).toEqual(expected))
