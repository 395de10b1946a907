import { createServer } from 'node:net'
import { parseArgs } from 'node:util'
import { READING_KINDS, type ReadingKind } from '#core/job/sections/readings/kinds'
import { demoJobs } from '../demo'
import { HIDDEN } from './hidden'
import { simulatedMeter } from './scpi'
import type { Rig } from '#core/practice/rig'
import { rigOfCode, truthOfRig } from './rigs'
import { truthAt, type Place } from './world'

/**
 * A bench meter that is none: it listens on loopback, speaks SCPI over TCP, and measures a virtual copy of the demo jobs. npm start begins it with the demo.
 */
const { values } = parseArgs({ options: { port: { type: 'string', default: '5025' } } })
const jobs = demoJobs.map(({ job }) => job)

const server = createServer((socket) => {
  let place: Place | null = null
  let rig: Rig | null = null
  let text = ''
  const answer = simulatedMeter({
    between: () => place && (rig ? truthOfRig(rig, place) : truthAt(jobs, HIDDEN, place)),
    chance: () => 2 * Math.random() - 1,
    place: (said) => {
      const [jobId, outputId, nodeId, kind] = said.split(' ')
      place = outputId && READING_KINDS.includes(kind as ReadingKind) ? { outputId, nodeId: nodeId || null, kind: kind as ReadingKind } : null
      rig = rigOfCode(jobId ?? '')
    },
  })
  socket.setEncoding('latin1')
  socket.on('error', () => socket.destroy())
  socket.on('data', (piece: string) => {
    text += piece
    if (text.length > 4000) return socket.destroy()
    const lines = text.split('\n')
    text = lines.pop()!
    for (const line of lines) {
      const said = answer(line)
      if (said !== null) socket.write(`${said}\n`)
    }
  })
})
server.listen(Number(values.port), '127.0.0.1', () => process.stdout.write('ready\n'))
// Started by a script, it goes when the script does.
if (process.channel) process.once('disconnect', () => process.exit(0))
