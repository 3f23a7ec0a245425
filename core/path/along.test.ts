import { randomPath } from '../../tests/random-path'
import { pathSectionsOf } from '../strip'
import { wiringOf } from '../site'
import { alongPath, layoutOf, pathVolts, runningVolts } from '.'

test('a strip runs along the path past every decoder of its way, then to its coil, to the metre of the layout', () => {
  for (let seed = 1; seed <= 12; seed++) {
    const { site, path } = randomPath(seed, { boxes: 9, exits: seed % 2 ? 1 : 2 })
    const layout = layoutOf(site, path)
    const strips = pathSectionsOf(site, wiringOf(site), path.controller).flatMap((s) => s.strips)
    expect(strips).toHaveLength(Object.values(site.devices).filter((d) => d.kind === 'coil').length)
    for (const strip of strips) {
      const spot = layout.spots.findIndex((s) => s.decoders.includes(strip.decoder))
      expect(strip.path_m).toBeCloseTo(layout.distance_m[spot]!, 9)
      const way = new Set<number>()
      for (let s = spot; layout.parent[s] !== null;) {
        way.add(s)
        const { a, b } = layout.legs[layout.parent[s]!]!
        s = a === s ? b : a
      }
      const passed = [...way].flatMap((s) => layout.spots[s]!.decoders).sort()
      expect(strip.beads.map((b) => b.decoder).sort()).toEqual(passed)
      const lead = site.cables[strip.coils[0]!.device.replace('V', 'L') as never] as
        { stops: { at_m: { value: number } }[] } | undefined
      expect(strip.coils[0]!.at_m - strip.path_m).toBeCloseTo(lead?.stops[1]!.at_m.value ?? 0, 9)
    }
  }
})

test('volts along the way fall toward a decoder that starts, and end where the path’s own answer has them', () => {
  const { site, path } = randomPath(6, { boxes: 10 })
  const running = runningVolts(site, path)
  if (!running.ok) throw new Error('no volts')
  for (const { decoder, port } of pathSectionsOf(site, wiringOf(site), path.controller).flatMap((s) => s.strips)) {
    const along = alongPath(site, path, decoder, port)
    if (!along.ok || !along.value) throw new Error('not along')
    const { waiting, running: starts, waiting_A, running_A, coils } = along.value
    for (const points of [waiting, starts])
      points.slice(1).forEach((p, i) => {
        expect(p.volt_V).toBeLessThan(points[i]!.volt_V)
        expect(p.at_m).toBeGreaterThan(points[i]!.at_m)
      })
    expect(running_A).toBeGreaterThan(waiting_A + 0.3)
    expect(coils[0]!.ohm).toBeCloseTo(33, 6)
    const idle = pathVolts(site, path, 'constant_current', [])
    if (!idle.ok) throw new Error('no volts')
    // The decoder’s own joints take a little more.
    const last = idle.value.decoders.find((d) => d.decoder === decoder)!.volt_V
    expect(Math.abs(waiting.at(-1)!.volt_V - last)).toBeLessThan(0.01)
    expect(Math.abs(starts.at(-1)!.volt_V - running.value.get(`${decoder} ${port}`)!.volt_V)).toBeLessThan(0.1)
  }
})
