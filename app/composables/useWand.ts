import type { Point } from '../../core/site'
import { beside, headingAt } from '../../core/trace'
import { simulatedAddress, useInstrument } from './useInstrument'
import type { TraceWorkHere } from './useTrace'

/** How the wand is held; said with every reading. */
export interface Held {
  mode: 'peak' | 'null'
  tilt_deg: number
  height_m: number
  gain: number
}

/** One ground for everybody who follows the same wire (FNV-1a, 32 bits). */
const seedOf = (text: string): number =>
  [...text].reduce((hash, letter) => Math.imul(hash ^ letter.charCodeAt(0), 16777619) >>> 0, 2166136261)

/** What is heard of a reading: louder with it, at a pitch that a shut ear still hears. */
function sounder() {
  let context: AudioContext | null = null
  let volume: GainNode | null = null
  return {
    heard(reading: number): void {
      if (!context) {
        context = new AudioContext()
        const tone = context.createOscillator()
        tone.frequency.value = 577
        volume = context.createGain()
        volume.gain.value = 0
        tone.connect(volume).connect(context.destination)
        tone.start()
      }
      // Ears go by ratios: a reading ten times as large is twice as loud.
      volume!.gain.setTargetAtTime(Math.min(0.4, 0.02 * Math.max(1, reading) ** 0.6), context.currentTime, 0.05)
      volume!.gain.setTargetAtTime(0, context.currentTime + 0.45, 0.1)
    },
    still(): void {
      void context?.close()
      context = null
    },
  }
}

/** A wand that is read over a WebSocket, its place told to it where the ground is made up. */
export function useWand(work: TraceWorkHere) {
  const { connected, simulated, trouble, ask, tell, connect, disconnect } = useInstrument()
  const held = reactive<Held>({ mode: 'peak', tilt_deg: 0, height_m: 0, gain: 1 })
  const isLoud = ref(false)
  const { heard, still } = sounder()
  watch(isLoud, (now) => !now && still())
  onBeforeUnmount(still)

  async function practise(): Promise<void> {
    const { cable, box } = work.traces.value!
    const seed = String(seedOf(`${cable} ${box}`))
    const query = new URLSearchParams({ property: work.property.held!.id, seed })
    await connect(simulatedAddress(query))
  }
  /** What the wand shows at a place along the way and across it; null where it does not answer. */
  async function read(along_m: number, across_m: number): Promise<number | null> {
    const way = work.trace.value?.way
    if (!connected.value) return null
    if (simulated.value && way) {
      const { ahead } = headingAt(way.points, along_m)
      const at = beside(way.points, along_m, across_m)
      const heading_deg = ((Math.atan2(ahead.x_m, ahead.y_m) * 180) / Math.PI + 360) % 360
      for (const line of [
        `LINE ${work.traces.value?.cable ?? ''}`,
        `POS ${at.x_m},${at.y_m}`,
        `HEAD ${heading_deg}`,
        `HEIG ${held.height_m}`,
        `TILT ${held.tilt_deg}`,
        `GAIN ${held.gain}`,
        `MODE ${held.mode}`,
      ])
        tell(`WAND:${line}`)
    }
    const line = await ask('WAND:READ?')
    const reading = line === null || line === '' ? NaN : Number(line)
    if (!Number.isFinite(reading)) {
      trouble.value = 'lost'
      return null
    }
    if (isLoud.value) heard(reading)
    return reading
  }
  /** Whether a rod comes down on a lid there; null without made-up ground. */
  async function probe(at: Point): Promise<boolean | null> {
    if (!connected.value || !simulated.value) return null
    const line = await ask(`WAND:PROB? ${at.x_m},${at.y_m}`)
    return line === null ? null : line === 'lid'
  }
  return { held, isLoud, connected, simulated, trouble, connect, disconnect, practise, read, probe }
}
export type Wand = ReturnType<typeof useWand>
