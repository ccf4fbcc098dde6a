// What the guess room offers: which encoding a picture was written in, with evidence and an honest confidence.
export * from './candidates'
export * from './card-error'
export * from './features'
export * from './statistics'
export * from './rank'
