import * as z from 'zod'
import type { CalendarDate } from '../../core/schedule'
import { useProperty } from '../stores/property'
import { simulatedAddress, useInstrument } from './useInstrument'

const moment = z.object({ at: z.string(), on: z.array(z.string()), waters: z.array(z.string()) })
export type SimulatedMoment = z.infer<typeof moment>
const reply = z.object({ now: z.string(), moments: z.array(moment) })

/** So often a second the clock is put on. */
const BEATS = 4
/** As much of what went by as anybody reads. */
const KEPT = 60

/**
 * A controller that runs the programs on record over a simulated property, as many times faster than life as is wanted.
 */
export function useSimulatedController() {
  const property = useProperty()
  const { connected, trouble, ask, tell, connect, disconnect } = useInstrument()
  const now = ref('')
  /** What changed, the latest first. */
  const moments = ref<SimulatedMoment[]>([])
  const speed = ref(600)
  const goes = ref(false)
  const hasPower = ref(true)
  let beat: ReturnType<typeof setTimeout> | null = null

  async function run(seconds: number): Promise<void> {
    const line = await ask(`CTRL:RUN? ${seconds}`)
    const read = reply.safeParse(line === null ? null : JSON.parse(line || 'null'))
    if (!read.success) {
      goes.value = false
      trouble.value = 'lost'
      return
    }
    now.value = read.data.now
    moments.value = [...read.data.moments.reverse(), ...moments.value].slice(0, KEPT)
  }
  async function go(): Promise<void> {
    if (!goes.value || !connected.value) return
    const from_ms = performance.now()
    await run(Math.max(1, Math.round(speed.value / BEATS)))
    beat = setTimeout(() => void go(), Math.max(0, 1000 / BEATS - (performance.now() - from_ms)))
  }
  watch(goes, () => void go())
  async function begin(tag: string, from: CalendarDate): Promise<void> {
    const seed = String(Math.floor(Math.random() * 4294967295))
    if (!(await connect(simulatedAddress(new URLSearchParams({ property: property.held!.id, seed }))))) return
    tell(`CTRL:DOOR ${tag}`)
    tell(`CTRL:TIME ${from}T00:00`)
    hasPower.value = true
    moments.value = []
    await run(0)
    goes.value = true
  }
  function end(): void {
    goes.value = false
    disconnect()
  }
  /** Two minutes by hand. */
  const byHand = (terminal: string) => tell(`CTRL:HAND ${terminal}`)
  function power(isOn: boolean): void {
    hasPower.value = isOn
    tell(`CTRL:POWER ${isOn ? 'ON' : 'OFF'}`)
  }
  onBeforeUnmount(() => {
    goes.value = false
    if (beat) clearTimeout(beat)
  })
  return { connected, trouble, now, moments, speed, goes, hasPower, begin, end, byHand, power }
}
