import { spawn } from 'node:child_process'
import { Failure } from './say.mjs'

/** A program that was run says with this before it what is the whole of what its user needs. */
const PLAINLY = 'plainly: '

/** Runs a command to its end, quietly; its output is shown only when it fails. Resolves to what it printed. */
export function run(command, args, { env, cwd, advice = '', log } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd, env: { ...process.env, ...env }, stdio: ['ignore', 'pipe', 'pipe'] })
    let output = ''
    const take = (chunk) => {
      output += chunk
      log?.(String(chunk))
    }
    child.stdout.on('data', take)
    child.stderr.on('data', take)
    child.on('error', error => reject(new Failure(`${command}: ${error.message}. ${advice}`)))
    child.on('close', (code) => {
      const plain = output.split('\n').find(line => line.startsWith(PLAINLY))
      if (code === 0) resolve(output)
      else if (plain) reject(new Failure(plain.slice(PLAINLY.length)))
      else reject(new Failure(`${command} ${args.join(' ')} ended with ${code}:\n${output.slice(-4000)}\n${advice}`))
    })
  })
}

/** Runs a command with the terminal's own output; resolves to its exit code. */
export function show(command, args, { env } = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { env: { ...process.env, ...env }, stdio: ['ignore', 'inherit', 'inherit'] })
    child.on('error', () => resolve(127))
    child.on('close', code => resolve(code ?? 1))
  })
}

/** Runs a command quietly; resolves to its exit code and all that it said. */
export function capture(command, args, { env } = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { env: { ...process.env, ...env }, stdio: ['ignore', 'pipe', 'pipe'] })
    let output = ''
    for (const stream of [child.stdout, child.stderr]) stream.on('data', chunk => output += chunk)
    child.on('error', error => resolve({ code: 127, output: error.message }))
    child.on('close', code => resolve({ code: code ?? 1, output }))
  })
}
