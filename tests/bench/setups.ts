// Set-ups on made reels of photographs that nothing was set by: every pair of shots is the same set-up or is not.
import { setupsOf } from '@core/continuity'
import { makeReel } from '../continuity/reels'
import { judgingPhotographs, photographsAreThere } from '../guess/photographs'
import { smoke } from './effort'

export function measureSetups(): readonly string[] {
  if (!photographsAreThere()) return ['opencv-doc is missing: set-ups are not judged on photographs.']
  const reels = smoke ? 1 : 20
  let pairs = 0
  let right = 0
  let same = 0
  let found = 0
  let wrongly = 0
  for (let n = 0; n < reels; n++) {
    const { shots, setups } = makeReel(judgingPhotographs, 9001 + n * 11)
    const groups = setupsOf(shots)
    const of = shots.map((_, i) => groups.findIndex((g) => g.includes(i)))
    for (let i = 0; i < shots.length; i++)
      for (let k = 0; k < i; k++) {
        const [is, said] = [setups[i] === setups[k], (of[i] ?? -1) >= 0 && of[i] === of[k]]
        pairs++
        if (is === said) right++
        if (is) same++
        if (is && said) found++
        if (!is && said) wrongly++
      }
  }
  const percent = (part: number, whole: number): string => ((100 * part) / Math.max(1, whole)).toFixed(1)
  return [
    `${reels} reels, exposure ±0.4 stops, ±12 mired, the camera moved, somebody in half of the shots:`,
    `  pairs right: ${percent(right, pairs)} % of ${pairs} (bar 95); the same and found: ` +
      `${percent(found, same)} % of ${same}; taken for the same wrongly: ${wrongly}`,
  ]
}
