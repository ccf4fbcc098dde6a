// All readings of a frame, one part at a time, so that whoever asks can stop in between.
import { bandingFindings } from './banding'
import { cardFindings } from './card'
import { castFindings } from './cast'
import { deliveryFindings } from './delivery'
import { endFindings } from './ends'
import { measureLevels } from './levels'
import { noiseFindings } from './noise'
import type { Area, MeasuredPicture } from './picture'
import type { Finding } from './reading'
import { restraintFindings } from './restraint'
import { saturationFindings } from './saturation'
import { sceneEndFindings } from './scene-ends'
import { subjectFindings, type PlacedSubject, type SubjectCard } from './subject'

/** What a person has pointed out in the picture. */
export interface Pointed {
  readonly card: Area | null
  readonly subjects: readonly PlacedSubject[]
}
export const nothingPointed: Pointed = { card: null, subjects: [] }

interface PickedArea {
  readonly frame: number
  readonly area: Area
}
/** What was pointed out on this very frame: on another the camera may have moved. */
export function pointedAt(
  frame: number,
  {
    card,
    subjects,
  }: {
    readonly card: PickedArea | null
    readonly subjects: readonly {
      readonly name: string
      readonly card: SubjectCard
      readonly here: PickedArea | null
    }[]
  },
): Pointed {
  return {
    card: card?.frame === frame ? card.area : null,
    subjects: subjects.flatMap(({ name, card: own, here }) =>
      here?.frame === frame ? [{ name, card: own, area: here.area }] : [],
    ),
  }
}

/** Measures part by part; each yield is one part's findings. */
export function* measureInParts(
  picture: MeasuredPicture,
  pointed: Pointed = nothingPointed,
): Generator<readonly Finding[]> {
  yield measureLevels(picture)
  yield endFindings(picture)
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

export const measureFrame = (picture: MeasuredPicture, pointed: Pointed = nothingPointed): readonly Finding[] =>
  [...measureInParts(picture, pointed)].flat()
