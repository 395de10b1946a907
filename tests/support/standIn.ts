import { spawn } from 'node:child_process'
import { freePort } from './server'

/** The simulated bench meter, and what a server is told so that it is there. */
export async function startStandIn(): Promise<{ env: Record<string, string>, stop: () => void }> {
  const port = await freePort()
  const meter = spawn(process.execPath, ['--import', 'tsx', 'stand-in/meter.ts', '--port', String(port)], { env: { ...process.env, NODE_OPTIONS: '' }, stdio: ['ignore', 'pipe', 'inherit'] })
  await new Promise(resolve => meter.stdout.once('data', resolve))
  return { env: { PLAIN_MATCH_STAND_IN_METER: String(port) }, stop: () => meter.kill('SIGKILL') }
}
