// Memory for mattes, used again: while a clip plays every frame has new ones, and fresh memory costs more than what is
// drawn into it.

export interface MatteRoom {
  /** So many zeros. */
  readonly take: (length: number) => Float32Array
  /** What nobody looks at any more. */
  readonly give: (matte: Float32Array) => void
}

export const freshRoom: MatteRoom = { take: (length) => new Float32Array(length), give: () => undefined }

const mostSpare = 16

export function reusedRoom(): MatteRoom {
  const spare: Float32Array[] = []
  return {
    take: (length) => {
      const at = spare.findIndex((matte) => matte.length === length)
      return at < 0 ? new Float32Array(length) : spare.splice(at, 1)[0].fill(0)
    },
    give: (matte) => {
      spare.unshift(matte)
      spare.length = Math.min(spare.length, mostSpare)
    },
  }
}
