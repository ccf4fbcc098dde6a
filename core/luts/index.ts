// What the luts room offers.
export * from './formula'
export * from './lut'
export * from './pack'
