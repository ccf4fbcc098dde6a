// What the instruments room offers.
export * from './meridian'
export * from './scopes'
export * from './trace-image'
