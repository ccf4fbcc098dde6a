// What is known of files before a pixel is looked at: how likely an encoding is in such a file, each line with its
// reason. Weights are against 1, and multiply.
import type { Encoding } from '../colour'
import type { CodeRange } from '../image'

/** What a file is and says of itself; what it does not say is left out. */
export interface FileFacts {
  readonly kind: 'film' | 'pictures' | 'still'
  readonly bitDepth: number
  readonly chroma: string
  /** Tags by the names of ISO/IEC 23091-2, as ffprobe gives them. */
  readonly transfer?: string
  readonly primaries?: string
  readonly range?: CodeRange
}

/** What is known of a medium, of the facts that probing found. */
export function fileFactsOf(medium: Omit<FileFacts, 'range'> & { range: CodeRange; rangeTagged: boolean }): FileFacts {
  const { kind, bitDepth, chroma, transfer, primaries, range, rangeTagged } = medium
  return {
    kind,
    bitDepth,
    chroma,
    ...(transfer ? { transfer } : {}),
    ...(primaries ? { primaries } : {}),
    ...(rangeTagged ? { range } : {}),
  }
}

/** The encoding that a transfer tag names; undefined for tags that cameras also put on their logs. */
export const taggedEncoding = (transfer: string | undefined): string | undefined => encodingOfTransfer[transfer ?? '']
const encodingOfTransfer: Readonly<Record<string, string>> = {
  'arib-std-b67': 'hlg',
  smpte2084: 'pq',
  'iec61966-2-1': 'srgb',
  gamma22: 'gamma-2.2',
  linear: 'linear',
}

export interface Prior {
  readonly reason: string
  readonly applies: (file: FileFacts) => boolean
  readonly weights: (encoding: Pick<Encoding, 'id' | 'group'>, asFlagged: boolean) => number
}

const neverRecorded = new Set(['acescc', 'acescct', 'film-density'])
const byGroup =
  (weights: Partial<Record<Encoding['group'], number>>): Prior['weights'] =>
  ({ group }) =>
    weights[group] ?? 1

export const priors: readonly Prior[] = [
  {
    reason: 'ACEScc, ACEScct and film density are made by programs and scanners; no camera records them as video.',
    applies: ({ kind, bitDepth }) => kind === 'film' || bitDepth < 10,
    weights: ({ id }) => (neverRecorded.has(id) ? 0 : 1),
  },
  {
    reason: 'Even among sequences of pictures they are the rarer case.',
    applies: ({ kind, bitDepth }) => kind !== 'film' && bitDepth >= 10,
    weights: ({ id }) => (neverRecorded.has(id) ? 0.5 : 1),
  },
  {
    reason: 'A scan that says that it holds printing density is rarely anything else.',
    applies: ({ transfer }) => transfer === 'printing density',
    weights: ({ id }) => (id === 'film-density' ? 100 : 1),
  },
  {
    reason: 'Gamma 2.6 is for cinema projectors; such files say their primaries.',
    applies: ({ primaries }) => !/^smpte43[12]$/.test(primaries ?? ''),
    weights: ({ id }) => (id === 'gamma-2.6' ? 0.02 : 1),
  },
  {
    reason: 'Most 8-bit video is plain display video.',
    applies: ({ kind, bitDepth }) => kind === 'film' && bitDepth === 8,
    weights: byGroup({ display: 3, log: 0.8 }),
  },
  {
    reason: 'Pictures of 8 bits are finished pictures but for few.',
    applies: ({ kind, bitDepth }) => kind !== 'film' && bitDepth === 8,
    weights: byGroup({ display: 10, log: 0.5, hdr: 0.1 }),
  },
  {
    reason: 'What records HLG or PQ says so in a tag; few files lose it.',
    applies: ({ transfer }) => transfer === undefined,
    weights: byGroup({ hdr: 0.4 }),
  },
  {
    reason: 'A tag of plain video is put on logs as well, but seldom on HLG or PQ.',
    applies: ({ transfer }) =>
      transfer !== undefined && transfer !== 'printing density' && taggedEncoding(transfer) === undefined,
    weights: byGroup({ hdr: 0.15, display: 1.5 }),
  },
  {
    reason: 'Wide primaries are written by what records logs, HLG and PQ.',
    applies: ({ primaries }) => primaries === 'bt2020',
    weights: byGroup({ display: 0.3 }),
  },
  {
    reason: 'A range that a file states is seldom wrong.',
    applies: ({ range }) => range !== undefined,
    weights: (_, asFlagged) => (asFlagged ? 1 : 0.1),
  },
  {
    reason: 'Where a file states no range, that of its kind is usual.',
    applies: ({ range }) => range === undefined,
    weights: (_, asFlagged) => (asFlagged ? 1 : 0.2),
  },
]

/** How likely an encoding is in such a file before a pixel is looked at, against 1; 0 where it is never found. */
export const priorOf = (
  encoding: Pick<Encoding, 'id' | 'group'>,
  asFlagged: boolean,
  file: FileFacts,
  lines: readonly Prior[] = priors,
): number =>
  lines.reduce((product, { applies, weights }) => product * (applies(file) ? weights(encoding, asFlagged) : 1), 1)
