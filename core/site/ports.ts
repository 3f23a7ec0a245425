/** Kinds of device and the ports each has. */
export const PORTS = {
  coil: ['a', 'b'],
  relay: ['a', 'b'],
  sensor: ['a', 'b'],
  flow_sensor: ['a', 'b'],
  decoder: ['path_1', 'path_2', 'common', 'out_1', 'out_2'],
  sequencer: ['in', 'common', 'out_1', 'out_2', 'out_3', 'out_4'],
  arrestor: ['path_1', 'path_2', 'earth'],
} as const

export type DeviceKind = keyof typeof PORTS
export type Port = (typeof PORTS)[DeviceKind][number]

/** The named ports of a kind of device. */
export const portsOf = (kind: DeviceKind): readonly Port[] => PORTS[kind]
