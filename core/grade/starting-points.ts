// Starting points for regions: ordinary, editable ones for what is asked for most often.
import { fitKey, freshKey, noCleaning, usualCleaning, type KeyRanges, type KeySample, type Region } from '../regions'
import { shapeComponent, type RegionStart } from './region-edits'

export type RegionStartId = 'face' | 'surroundings' | 'sky' | 'edges' | 'side' | 'mist' | 'shadows'
export interface RegionStartFacts {
  readonly id: RegionStartId
  readonly name: string
  readonly tip: string
  /** It is made from the region that is chosen. */
  readonly ofRegion?: true
}
export const regionStarts: readonly RegionStartFacts[] = [
  {
    id: 'face',
    name: 'Face',
    tip:
      'The subject’s own colours within a soft ellipse. Without a subject on this frame, pick the skin ' +
      'in the picture.',
  },
  {
    id: 'surroundings',
    name: 'Surroundings',
    tip: 'Everything but the chosen region; both follow its edits.',
    ofRegion: true,
  },
  { id: 'sky', name: 'Sky', tip: 'Bright blues and greys in the upper part of the picture.' },
  { id: 'edges', name: 'Edges darker', tip: 'Outside a large soft ellipse the picture is 0.7 stops darker.' },
  { id: 'side', name: 'Light from one side', tip: 'A slope from the left, half a stop lighter and a little warmer.' },
  { id: 'mist', name: 'Foreground mist', tip: 'A slope from below with less local contrast and less colour.' },
  {
    id: 'shadows',
    name: 'Deep-shadow colour noise',
    tip: 'Only the darkest tones: their colours are weaker and softer.',
  },
]

export interface StartMaterial {
  /** The subject's place on this frame (shares of the picture) and colours from it, where there is one. */
  readonly subject?: {
    readonly left: number
    readonly top: number
    readonly right: number
    readonly bottom: number
    readonly sample: KeySample
  }
  readonly chosen?: Region | null
}

const sky: readonly KeyRanges[] = [
  {
    hue: { centre: 245, half: 35, soft: 20 },
    chroma: null,
    lightness: { low: 0.5, high: 3, softLow: 0.15, softHigh: 0 },
  },
  {
    hue: null,
    chroma: { low: 0, high: 0.03, softLow: 0, softHigh: 0.02 },
    lightness: { low: 0.85, high: 3, softLow: 0.12, softHigh: 0 },
  },
]
const deepShadow: readonly KeyRanges[] = [
  { hue: null, chroma: null, lightness: { low: -0.2, high: 0.2, softLow: 0, softHigh: 0.12 } },
]
const upperPart = { kind: 'linear', fromX: 0.5, fromY: 0.45, toX: 0.5, toY: 0.75 } as const

/** A starting point; null where what it needs is not there. */
export function regionStart(
  id: RegionStartId,
  aspect: number,
  { subject, chosen }: StartMaterial = {},
): RegionStart | null {
  switch (id) {
    case 'face': {
      const box = subject ?? { left: 0.4, top: 0.25, right: 0.6, bottom: 0.6 }
      const grow = subject ? 1.6 : 1
      const ellipse = {
        kind: 'ellipse',
        centreX: (box.left + box.right) / 2,
        centreY: (box.top + box.bottom) / 2,
        radiusX: ((box.right - box.left) / 2) * aspect * grow,
        radiusY: ((box.bottom - box.top) / 2) * grow,
        rotationDegrees: 0,
      } as const
      const samples = subject ? [subject.sample] : []
      return {
        name: 'Face',
        params: {},
        region: {
          invert: false,
          components: [
            {
              id: 'component-1',
              mode: 'add',
              invert: false,
              opacity: 1,
              source: { kind: 'key', key: { ...freshKey, samples, groups: fitKey(samples) }, cleaning: usualCleaning },
            },
            shapeComponent('component-2', ellipse, { inner: 0.02, outer: 0.06 }, { mode: 'intersect' }),
          ],
        },
      }
    }
    case 'surroundings':
      return chosen
        ? {
            name: `Around ${chosen.name}`.slice(0, 80),
            params: {},
            region: {
              invert: false,
              components: [
                {
                  id: 'component-1',
                  mode: 'add',
                  invert: true,
                  opacity: 1,
                  source: { kind: 'region', regionId: chosen.id },
                },
              ],
            },
          }
        : null
    case 'sky':
      return {
        name: 'Sky',
        params: {},
        region: {
          invert: false,
          components: [
            {
              id: 'component-1',
              mode: 'add',
              invert: false,
              opacity: 1,
              source: { kind: 'key', key: { ...freshKey, groups: sky }, cleaning: usualCleaning },
            },
            shapeComponent('component-2', upperPart, { inner: 0, outer: 0 }, { mode: 'intersect' }),
          ],
        },
      }
    case 'edges':
      return {
        name: 'Edges',
        params: { exposure: { exposureStops: -0.7 } },
        region: {
          invert: true,
          components: [
            shapeComponent(
              'component-1',
              { kind: 'ellipse', centreX: 0.5, centreY: 0.5, radiusX: 0.5 * aspect, radiusY: 0.5, rotationDegrees: 0 },
              { inner: 0.28, outer: 0.22 },
            ),
          ],
        },
      }
    case 'side':
      return {
        name: 'Light from the left',
        params: { exposure: { exposureStops: 0.5 }, 'white-balance': { temperatureMired: 12 } },
        region: {
          invert: false,
          components: [
            shapeComponent(
              'component-1',
              { kind: 'linear', fromX: 0, fromY: 0.45, toX: 0.7, toY: 0.55 },
              { inner: 0, outer: 0 },
            ),
          ],
        },
      }
    case 'mist':
      return {
        name: 'Foreground mist',
        params: {
          'local-contrast': { localContrast: -0.6 },
          saturation: { saturation: 0.75 },
          exposure: { exposureStops: 0.2 },
        },
        region: {
          invert: false,
          components: [
            shapeComponent(
              'component-1',
              { kind: 'linear', fromX: 0.5, fromY: 0.95, toX: 0.5, toY: 0.45 },
              { inner: 0, outer: 0 },
            ),
          ],
        },
      }
    case 'shadows':
      return {
        name: 'Shadow noise',
        params: { saturation: { saturation: 0.35 }, sharpness: { sharpness: -0.5 } },
        region: {
          invert: false,
          components: [
            {
              id: 'component-1',
              mode: 'add',
              invert: false,
              opacity: 1,
              source: {
                kind: 'key',
                key: { ...freshKey, groups: deepShadow },
                cleaning: { ...noCleaning, calm: 0.004 },
              },
            },
          ],
        },
      }
  }
}
