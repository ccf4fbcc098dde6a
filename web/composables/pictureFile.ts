// A picture out of a file of any kind the browser reads, made smaller where it is too large.

/** @param scale from width and height to a factor; above 1 counts as 1 */
export async function drawPicture(
  file: Blob,
  scale: (width: number, height: number) => number,
): Promise<OffscreenCanvas> {
  const bitmap = await createImageBitmap(file)
  const factor = Math.min(1, scale(bitmap.width, bitmap.height))
  const canvas = new OffscreenCanvas(
    Math.max(1, Math.round(bitmap.width * factor)),
    Math.max(1, Math.round(bitmap.height * factor)),
  )
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
  bitmap.close()
  return canvas
}

/** Asks for picture files with the browser's own dialog. */
export function choosePictures(multiple: boolean, onChosen: (files: readonly File[]) => void): void {
  const input = document.createElement('input')
  input.type = 'file'
  input.accept = 'image/*'
  input.multiple = multiple
  input.onchange = () => onChosen([...(input.files ?? [])])
  input.click()
}
