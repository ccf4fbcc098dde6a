// Tracks: kinds of motion that were followed, as numbers frame by frame.
import { similarity, translation, type Homography } from './homography'

export type TrackKind = 'position' | 'similarity' | 'affine' | 'perspective'

export interface TrackKindFacts {
  readonly id: TrackKind
  readonly name: string
  readonly tip: string
  /** Numbers per frame. */ readonly numbers: number
}

export const trackKinds: readonly TrackKindFacts[] = [
  { id: 'position', name: 'Place', tip: 'The shape moves and keeps its form.', numbers: 2 },
  { id: 'similarity', name: 'Place, size, turn', tip: 'It may also grow, shrink and turn.', numbers: 4 },
  { id: 'affine', name: 'and lean', tip: 'It may also be sheared and stretched.', numbers: 6 },
  { id: 'perspective', name: 'and perspective', tip: 'It may also be seen at an angle, like a wall.', numbers: 8 },
]

export const trackKindById = (id: TrackKind): TrackKindFacts => trackKinds.find((k) => k.id === id) ?? trackKinds[0]

/** Where the picture under a shape went, frame by frame, in height units. */
export interface Track {
  readonly kind: TrackKind
  /** The frame of the medium where the shape was drawn: nothing has moved there yet. */
  readonly reference: number
  readonly first: number
  /** For each frame from the first: as many numbers as the kind has, from the reference frame to that one. */
  readonly values: readonly number[]
  /**
   * Two numbers for each frame: the share of points that agree (0..1), and how far they miss, in thousandths of the
   * frame's height.
   */
  readonly quality: readonly number[]
}

export const trackFrames = ({ kind, values }: Track): number => values.length / trackKindById(kind).numbers
export const lastTracked = (track: Track): number => track.first + trackFrames(track) - 1

/** What a track says about a frame: its numbers there, or those of its nearest end. */
export function trackAt(track: Track, frame: number): Homography {
  const { numbers } = trackKindById(track.kind)
  const at = Math.min(Math.max(0, frame - track.first), trackFrames(track) - 1) * numbers
  return motionOf(track.kind, track.values.slice(at, at + numbers))
}

export function motionOf(kind: TrackKind, v: readonly number[]): Homography {
  switch (kind) {
    case 'position':
      return translation(v[0], v[1])
    case 'similarity':
      return similarity(v[0], v[1], v[2], v[3])
    case 'affine':
      return [v[0], v[1], v[2], v[3], v[4], v[5], 0, 0, 1]
    case 'perspective':
      return [v[0], v[1], v[2], v[3], v[4], v[5], v[6], v[7], 1]
  }
}

/** The numbers that a kind keeps of a motion. */
export function numbersOf(kind: TrackKind, m: Homography): readonly number[] {
  const n = m.map((v) => v / m[8])
  switch (kind) {
    case 'position':
      return [n[2], n[5]]
    case 'similarity':
      return [(n[0] + n[4]) / 2, (n[3] - n[1]) / 2, n[2], n[5]]
    case 'affine':
      return n.slice(0, 6)
    case 'perspective':
      return n.slice(0, 8)
  }
}
