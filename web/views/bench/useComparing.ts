// Comparing: a picture is held, or brought from a file, and shown beside the present one.
import type { TraceImage } from '@core/instruments'
import { choosePictures, drawPicture } from '../../composables/pictureFile'
import { useView, type CompareMode } from '../../stores/view'
import { text } from './text'

export type CompareChoice = 'freeze' | 'import' | 'none' | CompareMode

const modes: readonly CompareMode[] = ['off', 'wipe', 'side', 'blink']
const mostPixels = 1920 * 1080

export interface Comparing {
  readonly choose: (choice: CompareChoice) => void
  readonly next: () => void
  /** A picture out of a file is held beside the present one. */
  readonly bring: (file: Blob, name: string) => Promise<void>
}

export function useComparing(
  picture: () => { readonly image: TraceImage; readonly name: string } | null,
  onFault: (sentence: string) => void,
): Comparing {
  const view = useView()
  function freezeStill(): void {
    const now = picture()
    if (!now) return
    // The picture's own memory is used again.
    view.still = { ...now, image: { ...now.image, rgba: now.image.rgba.slice() } }
    if (view.compare === 'off') view.compare = 'wipe'
  }
  async function bring(file: Blob, name: string): Promise<void> {
    try {
      const canvas = await drawPicture(file, (width, height) => Math.sqrt(mostPixels / (width * height)))
      const { width, height } = canvas
      const data = canvas.getContext('2d')?.getImageData(0, 0, width, height)
      if (!data) throw new Error()
      view.still = { image: { width, height, rgba: data.data }, name }
      view.compare = 'side'
    } catch {
      onFault(text.compare.notAPicture(name))
    }
  }
  function choose(choice: CompareChoice): void {
    if (choice === 'freeze') return freezeStill()
    if (choice === 'none') {
      view.still = null
      view.compare = 'off'
      return
    }
    if (choice !== 'import') {
      if (view.still || choice === 'off') view.compare = choice
      return
    }
    choosePictures(false, ([file]) => {
      if (file) void bring(file, file.name)
    })
  }
  return {
    choose,
    bring,
    next: () => {
      if (!view.still) freezeStill()
      else view.compare = modes[(modes.indexOf(view.compare) + 1) % modes.length] ?? 'off'
    },
  }
}
