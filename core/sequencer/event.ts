import type { DeviceId } from '../site'

/** Something that bears on the count of a sequencer, at a second of UTC. */
export type SequencerEvent = { readonly at_s: number } & (
  | { readonly kind: 'turned'; readonly times: number }
  | { readonly kind: 'perhaps'; readonly odds: readonly number[] }
  | { readonly kind: 'watered'; readonly valve: DeviceId | null }
)
