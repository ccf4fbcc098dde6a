// The Bench's worker: draws, measures and plays pictures, and answers questions about the last one. The interface
// thread only shows them. A new question is a function here; the page asks it by its name.
import { interpolationDifference, type GradeDocument, type Side, type StationId } from '@core/grade'
import {
  colourBefore,
  distributionBefore,
  steepTones,
  type InstrumentId,
  type PlaceColour,
  type Probe,
  type TraceImage,
} from '@core/instruments'
import type { Area, Cast, SubjectCard } from '@core/readings'
import { keyDistribution, sampleOf, type KeySample, type KeyDistribution, type KeyTap } from '@core/regions'
import { draw, lastPicture, pictureNumber, reference, render, tiles } from './bench/picture'
import { changeLook, pause, pictureIsOnScreen, prepareClips, startPlaying } from './bench/playing'
import { lightPixels, lossPixels, probePicture, sampleSkin, takeLook, type LastPicture } from './bench/questions'
import { findRegion, judgeRegion, keyedPlanes } from './bench/region-questions'
import { buffersOf } from './bench/transfer'
import { serve, transferring } from './calls'
import { lutAtHand } from './frame-source'
import type { LitPixels } from './lit-image'
import type { ChangedLook, GradedFrame, Lit, RenderRequest, Returned, ToneDistribution, Viewed } from './messages'

interface Place {
  /** In shares of the frame, or of an instrument's plot from its lower left. */
  readonly x: number
  readonly y: number
}
interface BeforeStation {
  readonly station: StationId
  readonly side: Side
}

/** The last picture where it was graded; code values are no picture to ask such things of. */
const graded = (): LastPicture | null => (lastPicture.now?.asShot === false ? lastPicture.now : null)
function litAnswer(lit: LitPixels | null): Lit {
  return lit ? transferring({ lit: lit.image, share: lit.share }, [lit.image.rgba.buffer]) : { lit: null, share: 0 }
}
const takeBack = ({ back }: Returned): void => {
  if (back) tiles.takeBack(back)
}

const functions = {
  async render(request: RenderRequest) {
    takeBack(request)
    const rendered = await render(request)
    return transferring(rendered, buffersOf(rendered.picture, rendered.measured))
  },
  play: startPlaying,
  prepareClips,
  changeLook: (look: ChangedLook): void => changeLook(look),
  pictureIsOnScreen(returned: Returned): void {
    takeBack(returned)
    pictureIsOnScreen()
  },
  pause: (): void => pause(),

  /** What a place of the last picture is. */
  probe: ({ x, y }: Place): Probe | null => lastPicture.now && probePicture(lastPicture.now, tiles.lastSignal(), x, y),
  /** Which pixels of the last picture make a place of an instrument. */
  light: ({ instrument, x, y }: Place & { readonly instrument: InstrumentId }): Lit =>
    litAnswer(lastPicture.now && lightPixels(lastPicture.now, tiles.lastSignal(), instrument, x, y)),
  /** Which pixels a station lost for good. */
  async losses({ station }: { readonly station: StationId }): Promise<Lit> {
    const asked = pictureNumber()
    return litAnswer(lastPicture.now && (await lossPixels(lastPicture.now, station, () => pictureNumber() !== asked)))
  },
  /** What an area is as skin, once a cast of the light is taken away; null where nothing there has a skin's colour. */
  skin: ({ area, cast }: { area: Area; cast: Pick<Cast, 'mired' | 'duv'> | null }): SubjectCard | null =>
    lastPicture.now && sampleSkin(lastPicture.now, tiles.lastSignal(), area, cast),
  /** How the picture is distributed before a station on a side, and where its footage will band. */
  distribution({ station, side, bits }: BeforeStation & { readonly bits: number }): ToneDistribution {
    const last = graded()
    if (!last) return { distribution: null, steep: [] }
    return {
      distribution: distributionBefore(last.grade, lutAtHand, last.frame, station, side),
      steep: side === 'scene' && station === 'shape' ? steepTones(last.grade, lutAtHand, bits, station) : [],
    }
  },
  /** What a place is before a station. */
  colour({ station, side, x, y }: BeforeStation & Place): PlaceColour | null {
    const last = graded()
    return last && colourBefore(last.grade, lutAtHand, last.frame, station, side, x, y)
  },
  /** The steps that bring the last picture near another; a null area holds no skin. */
  lookFrom: ({ reference: picture, skin }: { readonly reference: TraceImage; readonly skin: Area | null }) =>
    lastPicture.now && takeLook(lastPicture.now, lutAtHand, picture, skin),
  /** What the other way between a LUT's entries would change. */
  between({ stepId }: { readonly stepId: string }) {
    const last = graded()
    return last && interpolationDifference(last.grade, lutAtHand, last.frame, stepId)
  },
  /** Colours of a part of the picture as a key reads them. */
  keySample({ tap, mode, area }: { tap: KeyTap; mode: KeySample['mode']; area: Area }): KeySample | null {
    const last = graded()
    return last && sampleOf(keyedPlanes(last, tap), mode, area)
  },
  /** How the picture is spread over what keys are made of. */
  keyDistribution({ tap }: { readonly tap: KeyTap }): KeyDistribution | null {
    const last = graded()
    return last && keyDistribution(keyedPlanes(last, tap))
  },
  /** What a region's matte is worth; and how far it moved since the grade was `then`. */
  matteWorth: ({ regionId, then }: { readonly regionId: string; readonly then: GradeDocument | null }) =>
    judgeRegion(lastPicture.now, regionId, then),
  /** Where a region of another shot would sit in the last picture, and how its light differs there. */
  placeRegion: ({ regionId, from }: { readonly regionId: string; readonly from: GradedFrame }) =>
    findRegion(lastPicture.now, from, regionId),
  /** A frame of any shot as a picture; nothing that was drawn before is forgotten for it. */
  async draw(of: Viewed & { readonly frameIndex: number }): Promise<TraceImage> {
    const picture = await draw(of)
    return transferring(picture, [picture.rgba.buffer])
  },
  /** The present trace is held as the reference; or that of a frame of another shot; or none. */
  reference: ({ of }: { readonly of: 'this' | (Viewed & { readonly frameIndex: number }) | null }) => reference(of),
}
export type BenchFunctions = typeof functions
serve(functions)
