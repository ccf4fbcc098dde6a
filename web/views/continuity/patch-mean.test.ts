import { meanOf, shapedTo } from './patch-mean'

/** One colour, in pixels of red, green, blue and alpha. */
const plain = (width: number, height: number, colour: readonly number[]) => ({
  width,
  height,
  rgba: Uint8ClampedArray.from({ length: width * height * 4 }, (_, i) => colour[i % 4]!),
})
const whole = { left: 0, right: 1, top: 0, bottom: 1 }

test('a tall picture gets clear margins beside a wide one, a wide one above and below', () => {
  const tall = shapedTo(plain(90, 160, [200, 100, 50, 255]), 9 / 16, 16 / 9)
  expect([tall.width, tall.height]).toEqual([284, 160])
  expect([...tall.rgba.subarray(0, 4)]).toEqual([0, 0, 0, 0])
  const inside = meanOf(tall, { ...whole, left: 0.4, right: 0.6 })
  expect(inside.map((v) => Math.round(v * 255))).toEqual([200, 100, 50])
  const wide = shapedTo(plain(200, 100, [9, 9, 9, 255]), 2, 1)
  expect([wide.width, wide.height]).toEqual([200, 200])
})

test('of the same shape it is the same picture, also where its pixels are not square', () => {
  const picture = plain(72, 54, [1, 2, 3, 255])
  expect(shapedTo(picture, 16 / 9, 16 / 9)).toEqual(picture)
})

test('a part is at least one pixel, at any edge', () => {
  const picture = plain(4, 4, [255, 0, 51, 255])
  expect(meanOf(picture, { left: 1, right: 1, top: 1, bottom: 1 })).toEqual([1, 0, 0.2])
  expect(meanOf(picture, whole).map((v) => Math.round(v * 1000))).toEqual([1000, 0, 200])
})
