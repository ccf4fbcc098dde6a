// What a decoder says while it reads a whole file: its faults, and the sizes of the pictures that it met.

/** With these every line names its level, and each new size of picture is told. */
export const loggedDecoder = ['-nostats', '-loglevel', 'level+verbose'] as const

export interface DecoderLog {
  /** Takes what was printed next, in any pieces. */
  readonly take: (text: string) => void
  /** Lines of faults, the first ones. */
  readonly faults: () => readonly string[]
  /** Sizes of pictures as "width×height", in the order in which they came. */
  readonly sizes: () => readonly string[]
}

const mostKept = 20
/** A line longer than this is no line of a decoder's. */
const longestLine = 4096

export function decoderLog(): DecoderLog {
  const faults: string[] = []
  const sizes: string[] = []
  let rest = ''
  function line(text: string): void {
    if (/\[(?:error|fatal|panic)\] /.test(text) && faults.length < mostKept) faults.push(text)
    const size = /^\[graph .{1,80}\] \[verbose\] w:(\d+) h:(\d+) /.exec(text)
    const said = size && `${size[1]}×${size[2]}`
    if (said && sizes.length < mostKept && sizes.at(-1) !== said) sizes.push(said)
  }
  return {
    take: (text) => {
      const lines = (rest + text).split(/[\r\n]/)
      rest = (lines.pop() ?? '').slice(0, longestLine)
      lines.forEach(line)
    },
    faults: () => faults,
    sizes: () => sizes,
  }
}
