import { request, type IncomingMessage } from 'node:http'
import { finished, pipeline } from 'node:stream/promises'
import type { H3Event } from 'h3'
import { DEVICE_HEADER, deviceIdOf } from '../door/asker'
import { answerProblem } from '../http/route'

/** Hands a request over to the helper and its answer back, both as they come: nothing of them is held here. Undefined, and not answered: do it yourself. */
export async function passOn(event: H3Event, socketPath: string): Promise<unknown> {
  const { req, res } = event.node
  try {
    const answer = await new Promise<IncomingMessage>((resolve, reject) => {
      const up = request({ socketPath, method: req.method, path: req.url, headers: { ...req.headers, [DEVICE_HEADER]: deviceIdOf(event) ?? '' } }, resolve)
      up.once('error', reject)
      res.once('close', () => up.destroy())
      req.pipe(up)
    })
    res.writeHead(answer.statusCode ?? 502, answer.headers)
    await pipeline(answer, res)
  }
  catch {
    // It ended in the middle, or whoever asked has gone. What is still being sent is read to its end, so that its sender hears why.
    req.unpipe()
    // What has no body is done by this process after all.
    if (req.method === 'GET' && !res.headersSent && !res.destroyed) return undefined
    if (!req.readableEnded && !req.destroyed) await finished(req.resume()).catch(() => undefined)
    if (!res.headersSent) return answerProblem(event, { status: 503, code: 'interrupted', message: 'The server was interrupted in this. Send it again.' })
    res.destroy()
  }
  event._handled = true
  return undefined
}

/** Asks the helper for something on this server's own account. */
export function askHelper(socketPath: string, method: string, path: string, body: unknown): Promise<{ status: number, text: string }> {
  return new Promise((resolve, reject) => {
    const up = request({ socketPath, method, path, headers: { 'content-type': 'application/json', 'host': '127.0.0.1' } }, (answer) => {
      let text = ''
      answer.setEncoding('utf8')
      answer.on('data', (piece: string) => { text += piece })
      answer.on('end', () => resolve({ status: answer.statusCode ?? 502, text }))
      answer.once('error', reject)
    })
    up.once('error', reject)
    up.end(JSON.stringify(body))
  })
}
