import { defineNitroPlugin } from 'nitropack/runtime'
import { database } from '../database'
import { isHelper, stopHelper, type HelperTask } from '../helper/helper'
import { tellJob } from '../jobs/summaries'

/** The two ends of a helper: one that is told what to do, and one that ends it with itself. */
export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('close', stopHelper)
  if (!isHelper) return
  process.on('message', (task: HelperTask) => {
    // What goes wrong in it is tried again by whoever looks next.
    void database().then(db => tellJob(db, task.tell)).catch(() => undefined).finally(() => process.send?.(task))
  })
})
