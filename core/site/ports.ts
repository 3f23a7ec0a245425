import type { Device } from './device'

const numbered = (count: number) => Array.from({ length: count }, (_, i) => `out_${i + 1}`)

/** The named ports of a device: what a wire can end on. Those that switch have as many outputs as they have. */
export function portsOf(device: Device): readonly string[] {
  switch (device.kind) {
    case 'coil':
    case 'relay':
    case 'sensor':
    case 'flow_sensor':
      return ['a', 'b']
    case 'decoder':
      return ['path_1', 'path_2', 'common', ...numbered(device.outputs)]
    case 'sequencer':
      return ['in', 'common', ...numbered(device.outputs)]
    case 'rod':
    case 'plate':
      return ['earth']
    case 'arrestor':
      return ['path_1', 'path_2', 'earth']
  }
}
