import { defineEventHandler } from 'h3'
import { database } from '../database'
import { doorRefusal, findAsker } from '../door/asker'
import { noteSeen } from '../door/repository'
import { needsOf } from '../door/rules'
import { isHelper } from '../helper/helper'
import { isApi } from '../http/guard'
import { answerFailure, answerProblem } from '../http/route'

/** Asks whoever comes in from the network for what it was let in by. Comes after the guard, and before anything that reads. */
export default defineEventHandler(async (event) => {
  if (isHelper || !isApi(event.path)) return
  const needs = needsOf(event.method, event.path)
  if (needs === 'nothing') return
  try {
    const asker = await findAsker(event, database)
    const refused = doorRefusal(needs, asker)
    if (refused) return answerProblem(event, refused)
    if (asker.is === 'away' && asker.device) void database().then(db => noteSeen(db, asker.device!.id)).catch(() => undefined)
  }
  catch (error) {
    return answerFailure(event, error)
  }
})
