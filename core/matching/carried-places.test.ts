// Regions and subjects carried to another framing, light and camera: where they land, and when they are asked about.
import { judgeCarried, landed } from '../../tests/matching/carried'
import { matchPair, strangers } from '../../tests/matching/pairs'
import { carriedArea, carriedPlaces, lightPicture } from '.'

const none = (): undefined => undefined
const plates = ['glaze-shelf', 'market-phone', 'courtyard', 'potter'] as const

test('what stayed and what moved lands within 3 % of the width or is asked about; strangers are asked about', () => {
  const { regions, sure, wrong } = judgeCarried(3, 2, 2, plates)
  expect(regions).toBeGreaterThan(3)
  expect(sure.length).toBeGreaterThan(1)
  expect(sure.at(-1)).toBeLessThan(landed)
  expect(wrong).toBe(0)
})

test("a subject's rectangle lies and is sized as the picture is; elsewhere it is asked about", () => {
  const light = ({ frame, grade }: ReturnType<typeof matchPair>['shot']) => lightPicture(frame, grade, none)
  const { reference, shot, lies } = matchPair('market-phone', 91)
  const area = { left: 0.42, top: 0.4, right: 0.52, bottom: 0.6 }
  const found = carriedArea(area, light(reference), carriedPlaces(light(reference), light(shot)))!
  const [left, top] = lies!(area.left, area.top)
  const [right, bottom] = lies!(area.right, area.bottom)
  expect(found.sure).toBe(true)
  for (const [is, should] of [
    [found.area.left, left],
    [found.area.top, top],
    [found.area.right, right],
    [found.area.bottom, bottom],
  ] as const)
    expect(Math.abs(is - should)).toBeLessThan(landed)
  const apart = strangers('glaze-shelf', 'courtyard', 5)
  expect(
    carriedArea(area, light(apart.reference), carriedPlaces(light(apart.reference), light(apart.shot)))?.sure ?? false,
  ).toBe(false)
})
