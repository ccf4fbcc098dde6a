// What the measure room offers: encodings looked up by a data sheet's numbers, or fitted to patches, tables and LUTs.
export * from './card'
export * from './estimate'
export * from './fit'
export * from './lookup'
export * from './table'
