// The settings of each instrument that are one of a few: what it counts, in which scale, at which zoom.
import type { InstrumentId, InstrumentSettings } from '@core/instruments'
import type { Graticules } from '../../../stores/kept-settings'
import { text } from '../text'

const o = text.options

export interface Choice {
  readonly label: string
  readonly tip: string
  readonly now: unknown
  readonly options: readonly (readonly [value: unknown, name: string])[]
  readonly set: (value: never) => void
}
const choice = <T>(
  label: string,
  tip: string,
  now: T,
  options: readonly (readonly [T, string])[],
  set: (value: T) => void,
): Choice => ({ label, tip, now, options, set })

/** What a choice changes: how the instrument counts, or what is drawn over it. */
export interface ChoiceChange {
  readonly settings: (change: Partial<InstrumentSettings>) => void
  readonly graticules: (change: Partial<Graticules>) => void
}

/** The settings of an instrument that are one of a few, with what is chosen now. */
export function instrumentChoices(
  id: InstrumentId,
  s: InstrumentSettings,
  g: Graticules,
  change: ChoiceChange,
): readonly Choice[] {
  const scale = choice<Graticules['scale']>(
    o.scale,
    o.scaleTip,
    g.scale,
    [
      ['percent', '%'],
      ['codes', '10-bit'],
      ['light', 'cd/m²'],
    ],
    (value) => change.graticules({ scale: value }),
  )
  switch (id) {
    case 'chromaticity':
      return []
    case 'waveform':
      return [
        choice<InstrumentSettings['waveform']>(
          o.shows,
          o.waveformTip,
          s.waveform,
          [
            ['luma', 'luma'],
            ['rgb', 'R G B'],
            ['chroma', 'luma, Cb, Cr'],
          ],
          (waveform) => change.settings({ waveform }),
        ),
        scale,
      ]
    case 'parade':
      return [
        choice<InstrumentSettings['parade']>(
          o.shows,
          o.paradeTip,
          s.parade,
          [
            ['rgb', 'R G B'],
            ['ycbcr', 'Y Cb Cr'],
          ],
          (parade) => change.settings({ parade }),
        ),
        scale,
      ]
    case 'histogram':
      return [
        choice<InstrumentSettings['histogram']>(
          o.shows,
          o.histogramTip,
          s.histogram,
          [
            ['rgb', 'R G B'],
            ['luma', 'luma'],
          ],
          (histogram) => change.settings({ histogram }),
        ),
        choice<InstrumentSettings['histogramScale']>(
          o.heights,
          o.heightsTip,
          s.histogramScale,
          [
            ['linear', 'even'],
            ['log', 'log'],
          ],
          (histogramScale) => change.settings({ histogramScale }),
        ),
        scale,
      ]
    case 'vectorscope':
      return [
        choice<InstrumentSettings['vectorZoom']>(
          o.zoom,
          o.zoomTip,
          s.vectorZoom,
          [
            [1, '×1'],
            [2, '×2'],
            [4, '×4'],
            [8, '×8'],
          ],
          (vectorZoom) => change.settings({ vectorZoom }),
        ),
        choice<boolean>(
          o.ink,
          o.inkTip,
          s.vectorColoured,
          [
            [false, 'plain'],
            [true, 'hue'],
          ],
          (vectorColoured) => change.settings({ vectorColoured }),
        ),
        choice<Graticules['targets']>(
          o.targets,
          o.targetsTip,
          g.targets,
          [
            [75, '75 %'],
            [100, '100 %'],
          ],
          (targets) => change.graticules({ targets }),
        ),
      ]
  }
  return []
}
