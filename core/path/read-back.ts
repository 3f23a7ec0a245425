import type { DeviceId, PathAt, Site } from '../site'
import { outputsOn } from './running'

/** What was read back from a decoder, where it is not what is on record. */
export interface ReadOtherwise {
  readonly decoder: DeviceId
  readonly onRecord: readonly number[]
  readonly read: readonly number[]
}
/** A number that two decoders would answer to, if what was read is taken over. */
export interface ReadTwice {
  readonly address: number
  readonly decoders: readonly DeviceId[]
}
export interface ReadBack {
  readonly otherwise: readonly ReadOtherwise[]
  readonly twice: readonly ReadTwice[]
}

/** Compares numbers read back from decoders with the record, to be said before anything is buried. */
export function comparedWithRecord(
  site: Site,
  path: PathAt,
  read: readonly { readonly decoder: DeviceId; readonly addresses: readonly number[] }[],
): ReadBack {
  const onRecord = new Map<DeviceId, number[]>()
  for (const { decoder, address } of outputsOn(site, path))
    onRecord.set(decoder, [...(onRecord.get(decoder) ?? []), ...(address === null ? [] : [address])])
  const otherwise = read.flatMap(({ decoder, addresses }): ReadOtherwise[] => {
    const was = onRecord.get(decoder) ?? []
    // A decoder without a number yet has none to be other than.
    return was.length === 0 || was.join() === addresses.slice(0, was.length).join()
      ? []
      : [{ decoder, onRecord: was, read: addresses }]
  })
  const then = new Map(onRecord)
  for (const { decoder, addresses } of read) then.set(decoder, [...addresses])
  const byNumber = new Map<number, DeviceId[]>()
  for (const [decoder, numbers] of then) for (const n of numbers) byNumber.set(n, [...(byNumber.get(n) ?? []), decoder])
  const twice = [...byNumber].flatMap(([address, decoders]) => (decoders.length > 1 ? [{ address, decoders }] : []))
  return { otherwise, twice }
}
