export { Posterior } from './posterior'
