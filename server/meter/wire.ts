import { connect, type Socket } from 'node:net'
import { problem, type ProblemError } from '../http/problem'

/** A wire to a meter: a line out, a line in, each with its patience; whatever goes wrong is told in words. */
const CONNECT_MS = 2500
/** A meter that averages over mains cycles takes seconds. */
const ANSWER_MS = 6000
export interface Patience { connectMs: number, answerMs: number }
const USUAL_PATIENCE: Patience = { connectMs: CONNECT_MS, answerMs: ANSWER_MS }
/** No answer is longer. */
const MOST_BYTES = 1000

export interface Wire { say: (line: string) => void, ask: (line: string) => Promise<string> }

/** Opens the wire, does the work, and closes it however that ends: most meters take one at a time. */
export async function withWire<T>(address: string, port: number, work: (wire: Wire) => Promise<T>, patience: Patience = USUAL_PATIENCE): Promise<T> {
  const socket = await opened(address, port, patience.connectMs)
  const lines = linesOf(socket, patience.answerMs)
  try {
    return await work({
      say: (line) => { socket.write(`${line}\n`) },
      ask: (line) => {
        socket.write(`${line}\n`)
        return lines(line)
      },
    })
  }
  finally {
    socket.destroy()
  }
}

const failure = (code: string, message: string): ProblemError => problem(424, code, message)

function opened(address: string, port: number, connectMs: number): Promise<Socket> {
  return new Promise((resolve, reject) => {
    const socket = connect({ host: address, port, noDelay: true })
    const timer = setTimeout(() => {
      socket.destroy()
      reject(failure('meter-away', `The meter at ${address}:${port} does not answer. Is it on, and on this network?`))
    }, connectMs)
    socket.once('connect', () => {
      clearTimeout(timer)
      resolve(socket)
    })
    socket.once('error', (error: NodeJS.ErrnoException) => {
      clearTimeout(timer)
      reject(failure('meter-away', error.code === 'ECONNREFUSED'
        ? `Nothing listens at ${address}:${port}. Is the meter’s own network access switched on?`
        : `The meter at ${address}:${port} cannot be reached (${error.code ?? 'no reason given'}).`))
    })
  })
}

/** Each call waits for the next whole line; lines end with LF, with or without CR before it. */
function linesOf(socket: Socket, answerMs: number): (asked: string) => Promise<string> {
  let text = ''
  let gone: ProblemError | null = null
  let hear = () => {}
  socket.setEncoding('latin1')
  socket.on('data', (piece: string) => {
    text += piece
    if (text.length > MOST_BYTES) {
      gone = failure('meter-odd', 'It says more than a meter says. Is this the address of something else?')
      socket.destroy()
    }
    hear()
  })
  const end = () => {
    gone ??= failure('meter-hung-up', 'The meter hung up in the middle. Was its plug pulled, or does another program hold it?')
    hear()
  }
  socket.on('end', end)
  socket.on('error', end)
  socket.on('close', end)
  return asked => new Promise((resolve, reject) => {
    const timer = setTimeout(() => done(() => reject(failure('meter-silent', `The meter takes the wire but says nothing to ${asked} within ${answerMs / 1000} s.`))), answerMs)
    const done = (settle: () => void) => {
      clearTimeout(timer)
      hear = () => {}
      settle()
    }
    hear = () => {
      const at = text.indexOf('\n')
      if (at >= 0 && at <= MOST_BYTES && gone?.problem.code !== 'meter-odd') {
        const line = text.slice(0, at).replace(/\r$/, '')
        text = text.slice(at + 1)
        done(() => resolve(line))
      }
      else if (gone) {
        const why = gone
        done(() => reject(why))
      }
    }
    hear()
  })
}
