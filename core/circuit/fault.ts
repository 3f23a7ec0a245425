import { LEAST_ohm, type Element, type Network } from './network'

/**
 * An edit of a network, by the places of its elements in the list. A bridge joins two nodes; a cross joins two
 * elements part of the way along, measured from each one's `a`.
 */
export type Fault =
  | { readonly kind: 'open'; readonly elements: readonly number[] }
  | { readonly kind: 'series'; readonly element: number; readonly ohm: number }
  | { readonly kind: 'bridge'; readonly a: number; readonly b: number; readonly ohm: number }
  | {
      readonly kind: 'cross'
      readonly first: number
      readonly firstAlong: number
      readonly second: number
      readonly secondAlong: number
      readonly ohm: number
    }

/** The network with the faults in it; the one given is not changed. A series resistance below zero is turns shorted. */
export function withFaults(network: Network, faults: readonly Fault[]): Network {
  let { nodeCount } = network
  const elements: (Element | null)[] = [...network.elements]
  for (const fault of faults) {
    switch (fault.kind) {
      case 'open':
        for (const index of fault.elements) elements[index] = null
        break
      case 'series': {
        const element = elements[fault.element]
        if (element) elements[fault.element] = { ...element, ohm: Math.max(LEAST_ohm, element.ohm + fault.ohm) }
        break
      }
      case 'bridge':
        elements.push({ a: fault.a, b: fault.b, ohm: Math.max(LEAST_ohm, fault.ohm), link: null })
        break
      case 'cross': {
        const [p, q] = [nodeCount, nodeCount + 1]
        nodeCount += 2
        split(elements, fault.first, fault.firstAlong, p)
        split(elements, fault.second, fault.secondAlong, q)
        elements.push({ a: p, b: q, ohm: Math.max(LEAST_ohm, fault.ohm), link: null })
        break
      }
    }
  }
  return { ...network, nodeCount, elements: elements.filter((e) => e !== null) }
}

function split(elements: (Element | null)[], index: number, along: number, at: number): void {
  const element = elements[index]
  if (!element) throw new Error(`split: element ${index} is open; a cross needs both of its conductors whole`)
  const near = Math.max(LEAST_ohm, element.ohm * along)
  elements[index] = { ...element, b: at, ohm: near }
  elements.push({ ...element, a: at, ohm: Math.max(LEAST_ohm, element.ohm - near) })
}
