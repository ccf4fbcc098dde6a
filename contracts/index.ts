// Contracts: the classes that everything crossing the network or stored as JSON is checked against, on both sides.
export * from './check'
export * from './encodings'
export * from './grade'
export * from './readings'
export * from './recipes'
export * from './requests'
export * from './responses'
