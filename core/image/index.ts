// What the image room offers: frames, decoded planes, turning, resampling.
export * from './box'
export * from './decoded'
export * from './filters'
export * from './frame'
export * from './planes'
export * from './resample'
export * from './rotate'
export { smallFrameOfDecoded } from './small-decoded'
