// Puts finished pixels on a canvas of the same size.
import type { TraceImage } from '@core/instruments'

const scratch = typeof document === 'undefined' ? null : document.createElement('canvas')

/** With `persistence` (0..1) that share of what was there before shines through. */
export function putImage(canvas: HTMLCanvasElement, { width, height, rgba }: TraceImage, persistence = 0): void {
  const sameSize = canvas.width === width && canvas.height === height
  if (!sameSize) {
    canvas.width = width
    canvas.height = height
  }
  const context = canvas.getContext('2d')
  const image = new ImageData(rgba as Uint8ClampedArray<ArrayBuffer>, width, height)
  if (!context) return
  if (persistence <= 0 || !sameSize || !scratch) return context.putImageData(image, 0, 0)
  scratch.width = width
  scratch.height = height
  scratch.getContext('2d')?.putImageData(image, 0, 0)
  context.globalCompositeOperation = 'destination-in'
  context.globalAlpha = persistence
  context.fillRect(0, 0, width, height)
  context.globalCompositeOperation = 'source-over'
  context.globalAlpha = 1
  context.drawImage(scratch, 0, 0)
}
