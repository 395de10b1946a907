import { RATE_HZ, samplesOf, type Heard } from '#core/practice/sound'

/** Sounds of a rig, out of the loudspeaker of this device. Two are played one after the other. */
let context: AudioContext | null = null
let playing: AudioBufferSourceNode[] = []

export function silence(): void {
  for (const node of playing) node.stop()
  playing = []
}

/** @returns false where this device makes no sound: words say it all the same */
export async function play(heard: readonly Heard[]): Promise<boolean> {
  silence()
  try {
    context ??= new AudioContext()
    await context.resume()
    let at = context.currentTime + 0.05
    for (const one of heard) {
      const samples = samplesOf(one)
      const buffer = context.createBuffer(1, samples.length, RATE_HZ)
      buffer.copyToChannel(samples as Float32Array<ArrayBuffer>, 0)
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
