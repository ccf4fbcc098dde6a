// What the formats room offers.
export * from './cube'
export * from './edit-list'
export * from './edl'
export * from './otio'
