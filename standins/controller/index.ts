export { clockwork } from './clockwork'
export type { Clockwork, PlainProgram, PlainRun } from './clockwork'
export { controllerOn } from './session'
export type { ControllerSession } from './session'
