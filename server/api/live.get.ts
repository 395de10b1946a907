import { createEventStream } from 'h3'
import { deviceIdOf } from '../door/asker'
import { route } from '../http/route'
import { onChange, type Change } from '../live/changes'

/** Keeps proxies and phones from closing a quiet stream. */
const BEAT_MS = 20_000

function eventOf(change: Change): string {
  if ('jobId' in change) return 'change'
  return 'gear' in change ? 'gear' : 'here' in change ? 'here' : 'devices'
}

/**
 * Changes as they happen, as server-sent events: `change` of a job, `{ jobId, revision }`; `gear`; `devices`; `here`, who has a job open; or `gap` when some
 * may have been missed. The stream of a device that is taken back ends with `taken-back`.
 */
export default route(async (event) => {
  const stream = createEventStream(event)
  const mine = deviceIdOf(event)
  const stop = onChange(
    (change) => {
      if (!('takenBack' in change)) return void stream.push({ event: eventOf(change), data: JSON.stringify(change) })
      if (change.takenBack === mine) void stream.push({ event: 'taken-back', data: '{}' }).then(() => stream.close())
      else void stream.push({ event: 'devices', data: '{}' })
    },
    () => void stream.push({ event: 'gap', data: '{}' }),
  )
  const beat = setInterval(() => void stream.push({ event: 'beat', data: '{}' }), BEAT_MS)
  stream.onClosed(async () => {
    clearInterval(beat)
    stop()
    await stream.close()
  })
  void stream.push({ event: 'gap', data: '{}' })
  return stream.send()
})
