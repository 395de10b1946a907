import { expect, test } from '@jest/globals'
import { stillOpen } from '#core/bench/closing'
import { ticketsOf } from '#core/bench/ticket'
import { nextWords } from '#core/bench/next'
import { runsOf } from '#core/bench/runs'
import { whichOne } from '#core/bench/whichOne'
import { toDocument } from '#core/job/document'
import { readJob } from '#core/job/readJob'
import { demoBench } from './bench'

test('the bench of the demo is valid, each ticket at another step', () => {
  const tickets = ticketsOf(readJob(JSON.parse(JSON.stringify(toDocument(demoBench)))))
  expect(tickets.map(t => [t.number, t.head.unit, t.state.state, whichOne(t).causes[0]!.cause, nextWords(t)?.face])).toEqual([
    [1, 'Audio-guide handset', 'gone-out', 'lead', 'complaint'],
    [2, 'Megaphone, hand-held', 'waits', 'coil', 'replacing'],
    [3, 'Audio-guide handset', 'came-in', 'coil', 'replacing'],
    [4, 'Ticket-window talk-back', 'came-in', 'contact', 'opening'],
    [5, 'Saddle speaker, pair', 'came-in', 'nothing', 'which'],
    [6, 'Cabinet, unmarked', 'came-in', 'jack', 'load'],
  ])
  expect(stillOpen(tickets[3]!)[0]).toBe('1 of 4 “long screws” (corners) is missing')
  const [right, unknown] = runsOf(tickets[5]!)
  expect([right!.report?.warns, unknown!.report?.warns, unknown!.report?.against !== null]).toEqual([null, 'will', true])
})
