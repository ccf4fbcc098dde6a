// What the guess room offers: which encoding a picture was written in, with evidence and an honest confidence.
export * from './candidates'
export * from './features'
export * from './statistics'
export * from './rank'
