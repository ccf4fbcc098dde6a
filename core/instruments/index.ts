// What the instruments room offers.
export { noLoss, totalLoss, type StationLoss } from './losses'
export * from './meridian'
export * from './scopes'
export * from './trace-image'
