import { RATE_HZ, type Heard } from '#core/practice/sound'

/** Sounds of a rig, out of the loudspeaker of this device. Two are played one after the other. */
let context: AudioContext | null = null
let playing: AudioBufferSourceNode[] = []

export function silence(): void {
  for (const node of playing) node.stop()
  playing = []
}

function made(heard: readonly Heard[]): Promise<Float32Array<ArrayBuffer>[]> {
  const worker = new Worker(new URL('./sound.worker.ts', import.meta.url), { type: 'module' })
  return new Promise<Float32Array<ArrayBuffer>[]>((resolve, reject) => {
    worker.onmessage = ({ data }: MessageEvent<Float32Array<ArrayBuffer>[]>) => resolve(data)
    worker.onerror = () => reject(new Error('The sound could not be loaded.'))
    worker.postMessage(heard.map(h => ({ ...h })))
  }).finally(() => worker.terminate())
}

/** @returns false where this device makes no sound: words say it all the same */
export async function play(heard: readonly Heard[]): Promise<boolean> {
  silence()
  try {
    // Asked for while the finger is down: a browser lets sound out for nobody else.
    context ??= new AudioContext()
    await context.resume()
    const all = await made(heard)
    let at = context.currentTime + 0.05
    for (const samples of all) {
      const buffer = context.createBuffer(1, samples.length, RATE_HZ)
      buffer.copyToChannel(samples, 0)
      const node = context.createBufferSource()
      node.buffer = buffer
      node.connect(context.destination)
      node.start(at)
      playing.push(node)
      at += buffer.duration + 0.4
    }
    return true
  }
  catch {
    return false
  }
}
