// What the luts room offers.
export * from './lut'
