// What the numbers room offers: bounds, and numbers in print.
export { clamp, clamp01 } from './clamp'
export { printNumber } from './print'
