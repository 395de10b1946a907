import { expect, test } from '@jest/globals'
import { proveLine } from '#core/check/proof'
import { toDocument } from '#core/job/document'
import { readJob } from '#core/job/readJob'
import { outputsOf, speakersOf } from '#core/job/tree'
import { evaluateJob } from '#core/line/evaluate'
import { stateSentence } from '#core/line/jobState'
import { jobState } from '#core/line/lineState'
import { rankSuspects } from '#core/trace/pairs'
import { MODEL_SCHEMAS } from '#core/gear/models'
import { remarksOn } from '#core/gear/remarks'
import { byHand } from '#core/hands/kinds'
import { dropsById, fieldOf, spaceFacts } from '#core/advice/spaces'
import { spaceGrade } from '#core/advice/spaceWords'
import { contains } from '#core/room/outline'
import { demoGear } from './gear'
import { demoJobs } from '.'

test('the demo is valid jobs that says what it should', () => {
  const told = demoJobs.map(({ job }) => {
    const lines = jobState(readJob(JSON.parse(JSON.stringify(toDocument(job)))), evaluateJob(job))
    return [job.name, lines.map(l => `${l.label} ${l.grade}`).join(', '), lines.filter(l => l.wrong > 0).map(l => l.label).join(' '), stateSentence(lines)]
  })
  expect(told).toEqual([
    ['Fernhollow Glasshouses', 'A1 good, A2 tight, A3 good, A4 good, B1 good', 'A4', '1 reading wrong; A2 tight; 22 of 112 proved.'],
    ['Excursion boat Marigold', 'B1 good, B2 good, B3 good, B4 good', '', '6 of 26 proved.'],
    ['Bandstand, Mill Meadow', 'A1 good, A2 good, B1 good, C1 tight', 'A2', '1 reading wrong; C1 tight; 4 of 24 proved.'],
    ['Rehearsal loft', 'A1 good, B1 unknown, C1 good', '', '3 of 17 proved.'],
  ])
})

test('the library to begin with: some sixty models, each named once, valid, with nothing to remark; the jobs are made of it, nothing by hand', () => {
  for (const { kind, body } of demoGear) {
    expect(MODEL_SCHEMAS[kind].safeParse(body)).toEqual({ success: true, data: body })
    expect([body.name, remarksOn(kind, body as never)]).toEqual([body.name, []])
  }
  const count = demoGear.length
  expect([count >= 60, new Set(demoGear.map(g => g.body.name)).size, new Set(demoGear.map(g => g.id)).size]).toEqual([true, count, count])
  const [fern] = demoJobs.map(d => d.job)
  const speakers = outputsOf(fern!).flatMap(o => speakersOf(o.wiring))
  expect(fern!.kinds.map(k => [k.model.name, speakers.filter(s => s.kindId === k.id && byHand(s, k).length === 0).length])).toEqual([
    ['Ceiling 165 back-can, 30 W', 21],
    ['Surface 130 weatherproof, 20 W', 3],
    ['Horn 200, 30 W', 4],
    ['Pendant 130, 24 W', 7],
    ['Sub 200 in-wall, 60 W', 1],
    ['Surface 100, 16 W', 0],
  ])
})

test('its rooms: five hang and are loud enough, one is planned; every place lies on its floor and beside nothing that is not there', () => {
  const job = demoJobs[0]!.job
  const drops = dropsById(evaluateJob(job))
  expect(job.spaces.map((space) => {
    const facts = spaceFacts(job, drops, space, fieldOf(space, 600))
    return [space.name, spaceGrade(facts), facts.free, facts.unknown, space.spots.every(s => contains(space.outline, s))]
  })).toEqual([
    ['Palm house', 'good', 0, [], true],
    ['Orchid gallery', 'good', 0, [], true],
    ['Fern grotto', 'good', 0, [], true],
    ['Ticket court, shop', 'good', 0, [], true],
    ['Potting shed', 'good', 3, [], true],
    ['Roof walk', 'good', 0, [], true],
  ])
})

test('its wrong reading is what the fault behind it makes: cable broken before the third horn', () => {
  const { job } = demoJobs[0]!
  const roof = outputsOf(job).find(o => o.label === 'A4')!
  const proof = proveLine(job, roof)
  const first = rankSuspects(roof, proof).suspects[0]!
  expect(first.faults.map(f => [f.kind, f.nodeId])).toEqual([['break-in-reach', 'fh-roof-03']])
  const reading = [...proof.standing.values()].find(j => j.reading.kind === 'line-impedance')!.reading
  expect(reading.value.is === 'ohm' && Math.abs(reading.value.ohm / first.lineOhm! - 1)).toBeLessThan(0.02)
})
