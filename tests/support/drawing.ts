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

/** Presses on the picture while a curve picks from it, and drags upward by a share of its height. */
export async function pickOnPicture(page: Page, [x, y]: readonly [number, number], up: number): Promise<void> {
  await page.locator('canvas[data-settled="true"]').waitFor()
  const box = await page.getByTestId('pick-layer').boundingBox()
  if (!box) throw new Error('Nothing picks from the picture.')
  await page.mouse.move(box.x + box.width * x, box.y + box.height * y)
  await page.mouse.down()
  for (const share of [0.5, 1])
    await page.mouse.move(box.x + box.width * x, box.y + box.height * (y - up * share), { steps: 3 })
  await page.mouse.up()
}

/** The same so quickly that the hand has let go before the colour at the place is known. */
export async function flickOnPicture(page: Page, [x, y]: Place, up: number): Promise<void> {
  await page.locator('canvas[data-settled="true"]').waitFor()
  await page.getByTestId('pick-layer').evaluate(
    (layer, [shareX, shareY, shareUp]) => {
      const box = layer.getBoundingClientRect()
      const send = (kind: string, lifted: number): unknown =>
        layer.dispatchEvent(
          new PointerEvent(kind, {
            pointerId: 1,
            button: 0,
            bubbles: true,
            clientX: box.x + box.width * shareX!,
            clientY: box.y + box.height * (shareY! - lifted),
          }),
        )
      send('pointerdown', 0)
      send('pointermove', shareUp!)
      send('pointerup', shareUp!)
    },
    [x, y, up],
  )
}
