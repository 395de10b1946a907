import { samplesOf, type Heard } from '#core/practice/sound'

/** A loop of three seconds takes a sixth of a second to make: beside the page, not on it. */
self.onmessage = ({ data }: MessageEvent<Heard[]>) => {
  const all = data.map(samplesOf)
  self.postMessage(all, { transfer: all.map(a => a.buffer) })
}
