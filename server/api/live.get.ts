import { createEventStream } from 'h3'
import { route } from '../http/route'
import { onChange } from '../live/changes'

/** Keeps proxies and phones from closing a quiet stream. */
const BEAT_MS = 20_000

/** Changes as they happen, as server-sent events: `change` of a job, `{ jobId, revision }`; `gear`; or `gap` when some may have been missed. */
export default route(async (event) => {
  const stream = createEventStream(event)
  const stop = onChange(
    change => void stream.push({ event: 'gear' in change ? 'gear' : 'change', data: JSON.stringify(change) }),
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
