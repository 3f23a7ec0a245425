import type { Part } from './part'

/** A text that is equal for the same part: its kind and its ids, two that may be exchanged in their own order. */
export function partKey(p: Part): string {
  switch (p.kind) {
    case 'joint':
      return `joint ${p.splice}`
    case 'run':
      return `run ${p.cable} ${p.core} ${p.from} ${p.to}`
    case 'touch':
      return `touch ${p.cable} ${[p.core, p.other].sort().join(' ')} ${p.from} ${p.to}`
    case 'coil':
    case 'valve':
      return `${p.kind} ${p.device}`
    case 'pair':
      return `pair ${p.controller} ${[p.one, p.two].sort().join(' ')}`
    case 'terminal':
    case 'thread':
      return `${p.kind} ${p.controller} ${p.terminal}`
    case 'supply':
    case 'sensor':
    case 'water':
      return `${p.kind} ${p.controller}`
  }
}
