export { Posterior } from './posterior'
export { slotOf, slotsOf } from './units'
