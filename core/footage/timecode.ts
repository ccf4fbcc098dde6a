// Timecode: HH:MM:SS:FF and back, with drop-frame counting (SMPTE ST 12-1:2014, clause 5.2).

export interface FrameRate {
  readonly rateNumerator: number
  readonly rateDenominator: number
}

/** Frames counted per timecode second. */
export const countingRate = ({ rateNumerator, rateDenominator }: FrameRate): number =>
  Math.max(1, Math.round(rateNumerator / rateDenominator))

/** Two (or four) frame numbers are left out at each minute but every tenth, at 29.97 and 59.94 frames per second. */
const dropped = (rate: number): number => {
  if (rate === 30) return 2
  if (rate === 60) return 4
  return 0
}

/**
 * The frame number that a timecode stands for. A semicolon before the frames means drop-frame. Throws RangeError for
 * what is none.
 */
export function framesOfTimecode(text: string, rate: FrameRate): number {
  const match = /^(\d{2}):([0-5]\d):([0-5]\d)([:;])(\d{2})$/.exec(text)
  if (!match) throw new RangeError(`"${text}" is not a timecode; write HH:MM:SS:FF.`)
  const [hours, minutes, seconds, frames] = [1, 2, 3, 5].map((i) => Number(match[i])) as [
    number,
    number,
    number,
    number,
  ]
  const counting = countingRate(rate)
  if (frames >= counting) throw new RangeError(`"${text}" has frame ${frames}, but a second has ${counting}.`)
  const total = ((hours * 60 + minutes) * 60 + seconds) * counting + frames
  if (match[4] !== ';') return total
  const drop = dropped(counting)
  const allMinutes = hours * 60 + minutes
  if (drop > 0 && frames < drop && seconds === 0 && minutes % 10 !== 0)
    throw new RangeError(`"${text}" is left out in drop-frame counting.`)
  return total - drop * (allMinutes - Math.floor(allMinutes / 10))
}

/** The timecode of a frame number; `dropFrame` counts as drop-frame where the rate has it. */
export function timecodeOfFrames(frame: number, rate: FrameRate, dropFrame = false): string {
  const counting = countingRate(rate)
  const drop = dropFrame ? dropped(counting) : 0
  let n = Math.max(0, Math.round(frame))
  if (drop > 0) {
    const perTen = counting * 600 - 9 * drop
    const perMinute = counting * 60 - drop
    const tens = Math.floor(n / perTen)
    const rest = n % perTen
    n += drop * (9 * tens + (rest >= counting * 60 ? 1 + Math.floor((rest - counting * 60) / perMinute) : 0))
  }
  const two = (v: number): string => String(v).padStart(2, '0')
  const seconds = Math.floor(n / counting)
  const clock = [Math.floor(seconds / 3600) % 100, Math.floor(seconds / 60) % 60, seconds % 60].map(two).join(':')
  return `${clock}${drop > 0 ? ';' : ':'}${two(n % counting)}`
}

/** The timecode of frame `index` of a clip that starts at `start` (null: zero). */
export function timecodeAt(index: number, rate: FrameRate, start: string | null): string {
  if (start === null) return timecodeOfFrames(index, rate)
  try {
    return timecodeOfFrames(framesOfTimecode(start, rate) + index, rate, start.includes(';'))
  } catch {
    // A file may carry a timecode that its own rate does not allow.
    return timecodeOfFrames(index, rate)
  }
}
