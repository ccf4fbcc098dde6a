// What the image room offers: frames, Y'CbCr planes, resampling.
export * from './box'
export * from './frame'
export * from './resample'
export * from './yuv'
