// What the formats room offers.
export * from './cdl'
export * from './cube'
export * from './edit-list'
export * from './edl'
export * from './otio'
