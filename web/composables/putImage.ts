// Puts a finished picture from a worker on a canvas.
import type { TraceImage } from '@core/index'

export function putImage(canvas: HTMLCanvasElement, { width, height, rgba }: TraceImage): void {
  if (canvas.width !== width) canvas.width = width
  if (canvas.height !== height) canvas.height = height
  canvas.getContext('2d')?.putImageData(new ImageData(rgba as Uint8ClampedArray<ArrayBuffer>, width, height), 0, 0)
}
