import { readFileSync, watch, type FSWatcher } from 'node:fs'
import { createServer as createPlain, type Server } from 'node:http'
import { createServer as createSecure } from 'node:https'
import { dirname } from 'node:path'
import { toNodeListener } from 'h3'
import { defineNitroPlugin } from 'nitropack/runtime'
import { entranceSetting } from '../door/entrance'
import { firstStepAnswer } from '../door/firstStep'
import { isHelper } from '../helper/helper'

/** A certificate that was renewed is read when its files have come to rest, and looked for once an hour where a change is not told. */
const REST_MS = 500
const LOOK_MS = 3_600_000

/**
 * Serves the network beside this machine: the same application over HTTPS, and over plain HTTP the one page that says how a phone takes our authority.
 * Whoever comes in here is asked (middleware/2.door.ts). A renewed certificate is taken without a stop.
 */
export default defineNitroPlugin((nitro) => {
  const setting = entranceSetting()
  if (isHelper || !setting) return
  const servers: Server[] = []
  let watcher: FSWatcher | undefined
  let timer: ReturnType<typeof setInterval> | undefined
  // A port that is taken here would be another origin elsewhere: an error, never another port.
  const begun = (server: Server, { address, port }: { address: string, port: number }) => {
    server.on('error', (error) => {
      console.error(`${address}:${port} cannot be served: ${error.message}`)
      process.exit(1)
    })
    server.listen(port, address)
    servers.push(server)
  }
  const { secure, firstStep } = setting
  if (secure) {
    const files = () => ({ cert: readFileSync(secure.certificateFile), key: readFileSync(secure.keyFile) })
    const server = createSecure(files(), toNodeListener(nitro.h3App))
    begun(server as unknown as Server, secure)
    const takeRenewed = () => {
      try {
        server.setSecureContext(files())
      }
      catch (error) {
        console.error(`The renewed certificate cannot be used, the one before it is kept: ${(error as Error).message}`)
      }
    }
    let rest: ReturnType<typeof setTimeout>
    watcher = watch(dirname(secure.certificateFile), () => {
      clearTimeout(rest)
      rest = setTimeout(takeRenewed, REST_MS)
    })
    timer = setInterval(takeRenewed, LOOK_MS)
    timer.unref()
  }
  if (firstStep && setting.trust) {
    const authority = readFileSync(firstStep.authorityFile, 'utf8')
    const { origin, trust } = setting
    begun(createPlain((request, response) => {
      const { status, headers, body } = firstStepAnswer(request.method ?? '', request.url ?? '', { origin, fingerprint: trust.fingerprint, authority })
      response.writeHead(status, headers).end(body)
    }), firstStep)
  }
  nitro.hooks.hook('close', () => {
    watcher?.close()
    clearInterval(timer)
    for (const server of servers) {
      server.close()
      server.closeAllConnections()
    }
  })
})
