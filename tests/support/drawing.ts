// Drawing on the picture with the mouse; places in shares of it.
import type { Page } from '@playwright/test'

export type Place = readonly [x: number, y: number]

/** Presses at one place of the picture, drags to another and lets go. */
export async function drawOnPicture(page: Page, from: Place, to: Place): Promise<void> {
  const box = (await page.getByTestId('picture').boundingBox())!
  const at = ([x, y]: Place): [number, number] => [box.x + box.width * x, box.y + box.height * y]
  await page.mouse.move(...at(from))
  await page.mouse.down()
  await page.mouse.move(...at(to), { steps: 4 })
  await page.mouse.up()
}
