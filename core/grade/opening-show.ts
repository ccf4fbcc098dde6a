// How a reading is shown at first: scene light through the rendering, whose shoulder ends at the clip's own brightest
// light; a finished picture as it is.
import { middleGrey } from '../colour'
import { clamp } from '../numbers'
import { encodingOf } from './chain'
import type { GradeDocument, ReadSettings, ShowSettings } from './document'
import { firstRendering, type DefaultRendering } from './show/parameters'

/** Where the shoulder ends, in stops over middle grey: a flat scene is not greyed, and a bright one not cut. */
export const sceneMaximumLimits = { least: 3, most: 8 } as const
/** In steps of this, upward: shots of one scene share their shoulder, and none is cut. */
const maximumStep = 0.5

type Reading = Pick<ReadSettings, 'method' | 'encodingId' | 'own' | 'brightestSignal'>

/** False for pictures that are finished: their codes are what a display is to show. */
export const isSceneReferred = (read: Reading): boolean => encodingOf(read).group !== 'display'

/** The clip's brightest light in stops over middle grey, within the limits; null where it is not known. */
export function sceneMaximumOf(read: Reading): number | null {
  const { brightestSignal } = read
  if (brightestSignal === undefined || read.method !== 'formula' || !isSceneReferred(read)) return null
  const light = encodingOf(read).curve.decode(brightestSignal)
  const stops = light > 0 ? Math.log2(light / middleGrey) : sceneMaximumLimits.least
  return Math.ceil(clamp(stops, sceneMaximumLimits.least, sceneMaximumLimits.most) / maximumStep - 1e-6) * maximumStep
}

/** The Show settings that a reading opens with, through the rendering that its project says. */
export function openingShow(
  read: Reading,
  show: ShowSettings,
  rendering: DefaultRendering = firstRendering,
): ShowSettings {
  const maximum = sceneMaximumOf(read)
  if (maximum === null) return show
  return { ...show, method: rendering, params: { ...show.params, sceneMaximumStops: maximum } }
}

/**
 * Show after a change of the reading: the opening one of the new reading where it still stood as the old one opened,
 * else as a hand left it. Grades that do not know their clip's brightest light keep what they have.
 */
export function showAfter(
  before: GradeDocument,
  read: ReadSettings,
  rendering: DefaultRendering = firstRendering,
): ShowSettings {
  const { show } = before
  const maximum = sceneMaximumOf(before.read)
  const asOpened =
    maximum === null
      ? !isSceneReferred(before.read) && show.method === 'straight'
      : show.method === rendering && show.params.sceneMaximumStops === maximum
  if (!asOpened || show.own?.includes('method') || read.brightestSignal === undefined) return show
  return isSceneReferred(read) ? openingShow(read, show, rendering) : { ...show, method: 'straight' }
}

/**
 * The Show of one grade for a shot that is read otherwise: its shoulder ends as far from this clip's brightest light as
 * it did from the other's, where both are known.
 */
export function carriedShow({ read, show }: Pick<GradeDocument, 'read' | 'show'>, onto: ReadSettings): ShowSettings {
  const [theirs, own] = [sceneMaximumOf(read), sceneMaximumOf(onto)]
  if (show.method !== 'rendered' || theirs === null || own === null) return show
  const { least, most } = sceneMaximumLimits
  const sceneMaximumStops = clamp(own + show.params.sceneMaximumStops - theirs, least, most)
  return { ...show, params: { ...show.params, sceneMaximumStops } }
}
