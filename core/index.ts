// The core: all computation, without interface, network or file access. Rooms: colour, image, luts, regions, grade, instruments, formats, bake.
export * from './bake/bake'
export * from './colour'
export * from './formats'
export * from './grade'
export * from './image'
export * from './instruments'
export * from './luts'
export * from './regions'
