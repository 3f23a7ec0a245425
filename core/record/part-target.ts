import type { Part } from './part'
import type { WorkTarget } from './procedure'

/** The thing that work on a part is done on. */
export function targetOfPart(part: Part): WorkTarget {
  switch (part.kind) {
    case 'joint':
      return { kind: 'joint', splice: part.splice }
    case 'run':
    case 'touch':
      return { kind: 'cable', cable: part.cable }
    case 'coil':
    case 'valve':
      return { kind: 'coil', device: part.device }
    case 'terminal':
    case 'thread':
      return { kind: 'terminal', controller: part.controller, terminal: part.terminal }
    case 'pair':
      return { kind: 'terminal', controller: part.controller, terminal: part.one }
    case 'supply':
    case 'sensor':
    case 'water':
      return { kind: 'controller', controller: part.controller }
  }
}
