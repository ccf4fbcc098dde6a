// Giving the person a file that was made in the page.
import { fileNameOf } from '@core/names'

/** Begins the download of a text; what a file name cannot hold is replaced. */
export function download(name: string, ending: string, content: string, type: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([content], { type }))
  link.download = `${fileNameOf(name)}.${ending}`
  link.click()
  URL.revokeObjectURL(link.href)
}

export const downloadJson = (name: string, content: unknown): void =>
  download(name, 'json', JSON.stringify(content, null, 2), 'application/json')
