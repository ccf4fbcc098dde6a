// How the instruments show what was counted: modes, scales and strengths, as a person sets them.

export type InstrumentId = 'waveform' | 'parade' | 'vectorscope' | 'histogram' | 'chromaticity'
export const instrumentIds: readonly InstrumentId[] = ['waveform', 'parade', 'vectorscope', 'histogram', 'chromaticity']

export interface InstrumentSettings {
  /** Luma alone, the three channels over each other, or luma with Cb and Cr about the middle. */
  readonly waveform: 'luma' | 'rgb' | 'chroma'
  readonly parade: 'rgb' | 'ycbcr'
  readonly histogram: 'luma' | 'rgb'
  readonly histogramScale: 'linear' | 'log'
  readonly vectorZoom: 1 | 2 | 4 | 8
  /** The trace in the colours that it stands for. */
  readonly vectorColoured: boolean
  /** How bright few pixels are drawn: 1 shows a single one, more shows areas more evenly. */
  readonly gain: number
}

export const defaultInstruments: InstrumentSettings = {
  waveform: 'luma',
  parade: 'rgb',
  histogram: 'rgb',
  histogramScale: 'linear',
  vectorZoom: 1,
  vectorColoured: false,
  gain: 1,
}
