// All readings of a frame, one part at a time, so that whoever asks can stop in between.
import { bandingFindings } from './banding'
import { cardFindings } from './card'
import { castFindings } from './cast'
import { deliveryFindings } from './delivery'
import { measureLevels } from './levels'
import { noiseFindings } from './noise'
import type { Area, MeasuredPicture } from './picture'
import type { Finding } from './reading'
import { restraintFindings } from './restraint'
import { saturationFindings } from './saturation'
import { sceneEndFindings } from './scene-ends'
import { subjectFindings, type PlacedSubject } from './subject'

/** What a person has pointed out in the picture. */
export interface Pointed { readonly card: Area | null; readonly subjects: readonly PlacedSubject[] }
export const nothingPointed: Pointed = { card: null, subjects: [] }

/** Measures part by part; each yield is one part's findings. */
export function* measureInParts(picture: MeasuredPicture, pointed: Pointed = nothingPointed): Generator<readonly Finding[]> {
  yield measureLevels(picture)
  yield sceneEndFindings(picture)
  yield castFindings(picture)
  yield cardFindings(picture, pointed.card)
  for (const subject of pointed.subjects) yield subjectFindings(picture, subject)
  yield saturationFindings(picture)
  yield deliveryFindings(picture)
  yield noiseFindings(picture)
  yield bandingFindings(picture)
  yield restraintFindings(picture)
}

export const measureFrame = (picture: MeasuredPicture, pointed: Pointed = nothingPointed): readonly Finding[] => [...measureInParts(picture, pointed)].flat()
