// Comparing: a picture is held, or brought from a file, and shown beside the present one.
import type { TraceImage } from '@core/index'
import { useView, type CompareMode } from '../../stores/view'
import { text } from './text'

export type CompareChoice = 'hold' | 'import' | 'none' | CompareMode

const modes: readonly CompareMode[] = ['off', 'wipe', 'side', 'blink']
const mostPixels = 1920 * 1080

export interface Comparing {
  readonly choose: (choice: CompareChoice) => void
  readonly next: () => void
}

export function useComparing(picture: () => { readonly image: TraceImage; readonly name: string } | null, onFault: (sentence: string) => void): Comparing {
  const view = useView()
  function hold(): void {
    const now = picture()
    if (!now) return
    // The picture's own memory is used again.
    view.still = { ...now, image: { ...now.image, rgba: now.image.rgba.slice() } }
    if (view.compare === 'off') view.compare = 'wipe'
  }
  async function bring(file: File): Promise<void> {
    try {
      const bitmap = await createImageBitmap(file), scale = Math.min(1, Math.sqrt(mostPixels / (bitmap.width * bitmap.height)))
      const width = Math.max(1, Math.round(bitmap.width * scale)), height = Math.max(1, Math.round(bitmap.height * scale)), canvas = new OffscreenCanvas(width, height), context = canvas.getContext('2d')
      context?.drawImage(bitmap, 0, 0, width, height)
      bitmap.close()
      const data = context?.getImageData(0, 0, width, height)
      if (!data) throw new Error()
      view.still = { image: { width, height, rgba: data.data }, name: file.name }
      view.compare = 'side'
    } catch {
      onFault(text.compare.notAPicture(file.name))
    }
  }
  function choose(choice: CompareChoice): void {
    if (choice === 'hold') return hold()
    if (choice === 'none') { view.still = null; view.compare = 'off'; return }
    if (choice !== 'import') { if (view.still || choice === 'off') view.compare = choice; return }
    const input = document.createElement('input')
    input.type = 'file'
    input.accept = 'image/*'
    input.onchange = () => { const file = input.files?.[0]; if (file) void bring(file) }
    input.click()
  }
  return { choose, next: () => { if (!view.still) hold(); else view.compare = modes[(modes.indexOf(view.compare) + 1) % modes.length] ?? 'off' } }
}
