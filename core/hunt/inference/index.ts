export { Posterior } from './posterior'
export { isAsGood } from './signature'
export { slotOf, slotsOf } from './units'
