export { doneBy, workOrder } from './order'
export type { OrderItem, OrderPart, OrderStop, ToRead, WorkOrder } from './order'
