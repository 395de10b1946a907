import { defineNitroPlugin } from 'nitropack/runtime'
import { closeDatabase } from '../database'
import { stopListening } from '../live/changes'

/** Leaves no connection behind when the server is told to stop. */
export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('close', async () => {
    await stopListening()
    await closeDatabase()
  })
  // Started by a script, the server goes when the script does, however that ended: it would serve on beside the next one.
  if (process.channel) process.once('disconnect', () => process.kill(process.pid, 'SIGTERM'))
})
