// What the regions room offers.
export * from './region'
