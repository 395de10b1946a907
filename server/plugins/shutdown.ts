import { defineNitroPlugin } from 'nitropack/runtime'
import { closeDatabase } from '../database'
import { stopListening } from '../live/changes'

/** Leaves no connection behind when the server is told to stop. */
export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('close', async () => {
    await stopListening()
    await closeDatabase()
  })
})
