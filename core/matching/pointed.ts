// What a person pointed out in both pictures: the same subject, or a grey card, as one surface each.
import { pixelsOf, type Area, type Pointed } from '../readings'
import type { LightPicture } from './light'
import type { Light, SharedSurface } from './surfaces'

/** Light of an area: the middle of each channel, so that an eye in it does not count. Null where it clips. */
export function lightIn(picture: LightPicture, area: Area): Light | null {
  const { x0, x1, y0, y1 } = pixelsOf(area, picture)
  const channels: [number[], number[], number[]] = [[], [], []]
  for (let y = y0; y < y1; y++)
    for (let x = x0; x < x1; x++) {
      const p = y * picture.width + x
      if (picture.clipped[p]) continue
      channels.forEach((values, c) => values.push(picture.light[p * 3 + c]))
    }
  if (channels[0].length < 4 || channels[0].length < ((x1 - x0) * (y1 - y0)) / 2) return null
  const middle = (values: number[]): number => values.sort((a, b) => a - b)[values.length >> 1]
  return [middle(channels[0]), middle(channels[1]), middle(channels[2])]
}

interface Side {
  readonly light: LightPicture
  readonly pointed: Pointed
}

function surfaceOf(id: number, here: Side, there: Side, hereArea: Area, thereArea: Area): readonly SharedSurface[] {
  const a = lightIn(here.light, hereArea)
  const b = lightIn(there.light, thereArea)
  return a && b ? [{ id, here: a, there: b, hereArea, thereArea, places: 4 }] : []
}

/** Subjects that were pointed out in both, each with its name. */
export function sharedSubjects(
  here: Side,
  there: Side,
): readonly { readonly name: string; readonly surface: SharedSurface }[] {
  return here.pointed.subjects.flatMap(({ name, area }, i) => {
    const other = there.pointed.subjects.find((s) => s.name === name)
    return other ? surfaceOf(i, here, there, area, other.area).map((surface) => ({ name, surface })) : []
  })
}

/** The grey card, where both show it. */
export const sharedCard = (here: Side, there: Side): readonly SharedSurface[] =>
  here.pointed.card && there.pointed.card ? surfaceOf(0, here, there, here.pointed.card, there.pointed.card) : []
