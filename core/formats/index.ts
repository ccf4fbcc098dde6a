// What the formats room offers.
export * from './cube'
