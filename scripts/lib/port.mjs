import { createServer } from 'node:net'

/** A free port on loopback. */
export function freePort() {
  return new Promise((resolve, reject) => {
    const server = createServer()
    server.on('error', reject)
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address()
      server.close(() => resolve(port))
    })
  })
}

export function isFree(port, address = '127.0.0.1') {
  return new Promise((resolve) => {
    const server = createServer()
    server.on('error', () => resolve(false))
    server.listen(port, address, () => server.close(() => resolve(true)))
  })
}
