import { createServer, type AddressInfo, type Server, type Socket } from 'node:net'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { demoJobs } from '../../demo'
import { isOwnAddress } from '../../server/meter/address'
import { readMeter } from '../../server/meter/read'
import { HIDDEN } from '../../stand-in/hidden'
import { truthAt } from '../../stand-in/world'
import { asking, freePort, makeDatabase, startServer, type RunningServer, type TestDatabase } from '../support/server'
import { startStandIn } from '../support/standIn'

/** A bench meter by wire: against dialogues that are written down here, and against the simulated one that ships. */

/**
 * A dialogue as a person would write it down: “> ” what must come, “< ” what is said to it. “~” waits, “|” parts an answer into packets, “!” hangs up,
 * “%” says nothing more. Written without the application's own code.
 */
function scripted(dialogue: string): Promise<{ port: number, heard: string[], close: () => void }> {
  const steps = dialogue.trim().split('\n').map(line => line.trim())
  const heard: string[] = []
  const sockets = new Set<Socket>()
  const server: Server = createServer((socket) => {
    sockets.add(socket)
    let at = 0
    let text = ''
    let playing: Promise<void> = Promise.resolve()
    const play = async () => {
      while (at < steps.length && !steps[at]!.startsWith('>')) {
        const step = steps[at++]!
        if (step === '!') return void socket.destroy()
        if (step === '%') return
        if (step.startsWith('~')) await new Promise(resolve => setTimeout(resolve, Number(step.slice(1))))
        else for (const packet of step.slice(2).split('|')) {
          socket.write(packet.replaceAll('\\n', '\n').replaceAll('\\r', '\r'))
          await new Promise(resolve => setTimeout(resolve, 15))
        }
      }
    }
    socket.on('error', () => undefined)
    socket.on('data', (piece) => {
      text += String(piece)
      for (let end = text.indexOf('\n'); end >= 0; end = text.indexOf('\n')) {
        const line = text.slice(0, end)
        text = text.slice(end + 1)
        heard.push(line)
        if (steps[at] !== `> ${line}`) return void socket.destroy()
        at++
        playing = playing.then(play)
      }
    })
  })
  return new Promise(resolve => server.listen(0, '127.0.0.1', () => resolve({
    port: (server.address() as AddressInfo).port, heard, close: () => { server.close(); for (const s of sockets) s.destroy() },
  })))
}
const QUICK = { connectMs: 400, answerMs: 400 }
const meterAt = (port: number, fourWire = false, host = '127.0.0.1') => ({ id: 'm', name: 'Bench', host, port, fourWire, isStandIn: false })
const HELLO = '> *IDN?\n< SOMEBODY,BENCH 6,00123,1.04\\n'
const SET = '> CONF:RES\n> SYST:ERR?\n< +0,"No error"\\n'

describe('against a dialogue', () => {
  test.each<[string, string, unknown]>([
    ['as it should be', `${HELLO}\n${SET}\n> READ?\n< +6.21300000E+00\\n`, { is: 'ohm', ohm: 6.213 }],
    ['nothing between the leads', `${HELLO}\n${SET}\n> READ?\n< +9.90000000E+37\\n`, { is: 'open' }],
    ['lines that end with CR and LF, in packets', `> *IDN?\n< SOME|BODY,B,1,1\\r|\\n\n${SET}\n> READ?\n< 6.|2\\r\\n`, { is: 'ohm', ohm: 6.2 }],
    ['a slow one', `${HELLO}\n${SET}\n> READ?\n~250\n< 6.2\\n`, { is: 'ohm', ohm: 6.2 }],
    ['it did not take the setting: what it measures is not known', `${HELLO}\n> CONF:RES\n> SYST:ERR?\n< -113,"Undefined header"\\n`, 'meter-refused: The meter did not take CONF:RES: Undefined header.'],
    ['it says nothing of whether it did', `${HELLO}\n> CONF:RES\n> SYST:ERR?\n%`, 'meter-silent: The meter takes the wire but says nothing to SYST:ERR? within 0.4 s.'],
    ['it says nothing at all', '> *IDN?\n%', 'meter-silent: The meter takes the wire but says nothing to *IDN? within 0.4 s.'],
    ['too slow', `${HELLO}\n${SET}\n> READ?\n~700\n< 6.2\\n`, 'meter-silent: The meter takes the wire but says nothing to READ? within 0.4 s.'],
    ['its plug is pulled before the reading', `${HELLO}\n${SET}\n> READ?\n!`, 'meter-hung-up: The meter hung up in the middle. Was its plug pulled, or does another program hold it?'],
    ['and in the middle of it', `${HELLO}\n${SET}\n> READ?\n< 6.2\n!`, 'meter-hung-up: The meter hung up in the middle. Was its plug pulled, or does another program hold it?'],
    ['words for a number', `${HELLO}\n${SET}\n> READ?\n< OVERLOAD\\n`, 'meter-odd: It answered “OVERLOAD”, which is not a number.'],
    ['something that is no meter', '> *IDN?\n< HTTP/1.1 400 Bad Request\\r\\n', 'meter-odd: It calls itself “HTTP/1.1 400 Bad Request”, which is not what a meter says of itself (maker, model, number, version).'],
    ['something that talks without end', `> *IDN?\n< ${'x'.repeat(3000)}`, 'meter-odd: It says more than a meter says. Is this the address of something else?'],
  ])('%s', async (_, dialogue, answer) => {
    const meter = await scripted(dialogue)
    try {
      expect(await readMeter(meterAt(meter.port), 'ohm', null, QUICK).then(a => a.value, (e: any) => `${e.problem.code}: ${e.problem.message}`)).toEqual(answer)
    }
    finally {
      meter.close()
    }
  })
  test('four wires are asked for where they are, volts by their own question; a real meter is not told where its leads are', async () => {
    const four = await scripted(`${HELLO}\n> CONF:FRES\n> SYST:ERR?\n< 0,"No error"\\n\n> READ?\n< 5.98\\n`)
    expect(await readMeter(meterAt(four.port, true), 'ohm', { jobId: 'j', outputId: 'o', nodeId: null, kind: 'line-dcr' }, QUICK)).toEqual({ value: { is: 'ohm', ohm: 5.98 }, meterName: 'SOMEBODY BENCH 6', fourWire: true })
    const volts = await scripted(`${HELLO}\n> MEAS:VOLT:DC?\n< -1.8E-02\\n`)
    expect((await readMeter(meterAt(volts.port), 'volts', null, QUICK)).value).toEqual({ is: 'volts', volts: -0.018 })
    four.close()
    volts.close()
  })
  test('two who ask at once are answered one after the other', async () => {
    const meter = await scripted(`${HELLO}\n${SET}\n> READ?\n~60\n< 6.2\\n`)
    const all = await Promise.all([1, 2, 3].map(() => readMeter(meterAt(meter.port), 'ohm', null, QUICK)))
    expect([all.map(a => a.value), meter.heard.filter((_, k) => k % 4 === 0)]).toEqual([Array(3).fill({ is: 'ohm', ohm: 6.2 }), ['*IDN?', '*IDN?', '*IDN?']])
    meter.close()
  })
  test.each<[string, string, number | null, string]>([
    ['nobody there', '127.0.0.1', null, 'meter-away'], ['a name that there is not', 'no-such-meter.invalid', 5025, 'meter-not-found'], ['somebody else’s network', '192.0.2.1', 5025, 'meter-elsewhere'], ['somebody else’s, written otherwise', '::ffff:192.0.2.1', 5025, 'meter-elsewhere'],
  ])('%s', async (_, host, port, code) => {
    const error = await readMeter(meterAt(port ?? await freePort(), false, host), 'ohm', null, QUICK).then(() => null, e => e)
    expect(error?.problem.code).toBe(code)
  })
})

// RFC 1918, 3927, 4193, 4291: the private ranges at their edges.
test.each([
  ['127.0.0.1', true], ['10.0.0.0', true], ['10.255.255.255', true], ['11.0.0.0', false], ['9.255.255.255', false], ['172.16.0.0', true], ['172.31.255.255', true], ['172.15.255.255', false], ['172.32.0.0', false],
  ['192.168.0.1', true], ['192.169.0.1', false], ['169.254.1.1', true], ['8.8.8.8', false], ['0.0.0.0', false], ['::1', true], ['fd12::1', true], ['fe80::1', true], ['2001:db8::1', false], ['::ffff:10.1.1.1', true], ['::ffff:8.8.8.8', false], ['rubbish', false],
])('%s is a network of one’s own: %s', (address, own) => expect(isOwnAddress(address)).toBe(own))

describe('the simulated meter', () => {
  let database: TestDatabase
  let server: RunningServer
  let meter: Awaited<ReturnType<typeof startStandIn>>
  const ask = asking(() => server.url)
  beforeAll(async () => {
    meter = await startStandIn()
    database = await makeDatabase()
    server = await startServer(database.url, undefined, undefined, meter.env)
  }, 60_000)
  afterAll(async () => {
    meter.stop()
    await server.stop()
    await database.drop()
  })
  const read = async (outputId: string, nodeId: string | null, kind: string) => (await ask('POST', '/meters/stand-in/read', { quantity: 'ohm', at: { jobId: 'j', outputId, nodeId, kind } })).body
  const jobs = demoJobs.map(d => d.job)

  test.each<[string, string, string | null, string, number | 'open']>([
    ['a sound coil: the truth and its leads', 'fh-fern', 'fh-fern-02', 'coil-dcr', truthAt(jobs, HIDDEN, { outputId: 'fh-fern', nodeId: 'fh-fern-02', kind: 'coil-dcr' })! + 0.235], ['a hidden open coil', 'fh-fern', 'fh-fern-07', 'coil-dcr', 'open'], ['a coil that rots', 'fh-orchid', 'fh-orchid-01', 'coil-dcr', 37.2],
    ['legs to earth', 'fh-fern', null, 'leg-earth', 'open'], ['a leak', 'fh-ticket', null, 'leg-earth', 68_000], ['a speaker that is not in the copy', 'fh-fern', 'added', 'coil-dcr', 'open'],
  ])('%s', async (_, outputId, nodeId, kind, ohm) => {
    const { value, meterName } = await read(outputId, nodeId, kind)
    expect(meterName).toBe('Plain Match simulated bench meter')
    if (ohm === 'open') expect(value).toEqual({ is: 'open' })
    else expect(Math.abs(value.ohm / ohm - 1)).toBeLessThan(0.01)
  })
  test('it reads twice almost alike, never the very same: a meter has noise', async () => {
    const twice = [await read('fh-fern', 'fh-fern-02', 'coil-dcr'), await read('fh-fern', 'fh-fern-02', 'coil-dcr')].map(r => r.value.ohm as number)
    expect([twice[0] === twice[1], Math.abs(twice[0]! - twice[1]!) < 0.08]).toEqual([false, true])
  })
  test('a meter is added, listed beside it, and taken off; one elsewhere is refused; the stand-in stays', async () => {
    expect((await ask('POST', '/meters', { name: 'Far', host: '192.0.2.9', port: 5025, fourWire: false })).body.error.code).toBe('meter-elsewhere')
    const { body: { id } } = await ask('POST', '/meters', { name: 'Bench two', host: '127.0.0.1', port: 9, fourWire: true })
    expect((await ask('GET', '/meters')).body.meters.map((m: any) => [m.name, m.fourWire, m.isStandIn])).toEqual([['Bench two', true, false], ['Simulated bench meter', false, true]])
    expect((await ask('POST', `/meters/${id}/read`, { quantity: 'ohm', at: null })).body.error).toMatchObject({ code: 'meter-away' })
    expect([(await ask('DELETE', `/meters/${id}`)).status, (await ask('DELETE', '/meters/stand-in')).status, (await ask('POST', '/meters/gone/read', { quantity: 'ohm', at: null })).status]).toEqual([200, 404, 404])
  })
})
