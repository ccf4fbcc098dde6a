// Pieces of a clip while they are being chosen: made from cuts, split, joined, trimmed. Nothing here touches the
// footage.
import type { CutShot } from '@contracts/requests'
import type { Cut } from '@core/footage'

export interface Piece {
  readonly first: number
  readonly count: number
  readonly name: string
  /** Frames of a dissolve by which the piece comes in; 0 for a cut. */
  readonly transition: number
  /** The correction that came with it in an edit list. */
  readonly cdl?: CutShot['pieces'][number]['cdl']
}

const endOf = ({ first, count }: Piece): number => first + count

/** The pieces between the cuts that lie inside a range. */
export function piecesOfCuts(cuts: readonly Cut[], first: number, count: number, name: string): readonly Piece[] {
  const inside = cuts.filter((c) => c.frame > first && c.frame < first + count)
  const starts = [
    { frame: first, length: 0 },
    ...inside.map((c) => ({ frame: c.frame, length: c.kind === 'dissolve' ? c.length : 0 })),
  ]
  return starts.map(({ frame, length }, i) => ({
    first: frame,
    count: (starts[i + 1]?.frame ?? first + count) - frame,
    name: starts.length === 1 ? name : `${name} ${i + 1}`,
    transition: length,
  }))
}

/**
 * Splits the piece that holds `frame`, which becomes the first of the later one. Unchanged when no piece can be split
 * there.
 */
export function splitAt(pieces: readonly Piece[], frame: number): readonly Piece[] {
  return pieces.flatMap((p) =>
    frame > p.first && frame < endOf(p)
      ? [
          { ...p, count: frame - p.first },
          { first: frame, count: endOf(p) - frame, name: `${p.name} b`, transition: 0 },
        ]
      : [p],
  )
}

/** Joins a piece with the one after it, and with what lies between. */
export function joinNext(pieces: readonly Piece[], index: number): readonly Piece[] {
  const piece = pieces[index]
  const next = pieces[index + 1]
  if (!piece || !next) return pieces
  const first = Math.min(piece.first, next.first)
  const end = Math.max(endOf(piece), endOf(next))
  return [...pieces.slice(0, index), { ...piece, first, count: end - first }, ...pieces.slice(index + 2)]
}

/** Moves a piece's beginning or end, within the clip of `frames` frames and leaving at least one frame. */
export function trim(
  pieces: readonly Piece[],
  index: number,
  end: 'first' | 'last',
  frame: number,
  frames: number,
): readonly Piece[] {
  return pieces.map((p, i) => {
    if (i !== index || !Number.isInteger(frame)) return p
    if (end === 'first') {
      const first = Math.min(Math.max(0, frame), endOf(p) - 1)
      return { ...p, first, count: endOf(p) - first }
    }
    return { ...p, count: Math.min(Math.max(frame, p.first), frames - 1) - p.first + 1 }
  })
}
