// The scopes pass in AssemblyScript: counts one frame's rows for waveform, parade, vectorscope and histogram. Does exactly
// what countPlain in ../scopes.ts does; a test compares the two. Built by bin/build-kernel; index.ts lays out the memory.

/** Addresses and numbers, in the order in which index.ts writes them: thirty u32 (the last is unused), then five f64. */
@unmanaged
class Job {
  source: u32
  width: u32
  rows: u32
  /** u32 per picture column: byte offset of its counters. */
  columnOf: u32
  /** Levels of a code in 32nds: (code / 2 · gain) / 32768 + offset. */
  levelGain: u32
  levelOffset: i32
  topLevel: u32
  waveform: u32
  red: u32
  green: u32
  blue: u32
  luma: u32
  vector: u32
  cells: u32
  topCode: u32
  /** Weights of luma in 65536ths, and 128ths of cells for half a difference of 32768 codes. */
  redWeight: u32
  greenWeight: u32
  blueWeight: u32
  perCb: u32
  perCr: u32
  /** One byte per pixel of the rows, zero where it is not counted; 0 where all are. */
  mask: u32
  /** Traces of Cb and Cr as waveforms about the middle, and their gains in 32768ths; 0 where they are not wanted. */
  cb: u32
  cr: u32
  cbGain: u32
  crGain: u32
  /** The zoomed vectorscope, 0 where it is not wanted, and its cells per code of colour difference in 2^20ths. */
  zoomed: u32
  zoomPerCb: u32
  zoomPerCr: u32
  /** Room for where the pixels of a row are counted. */
  strip: u32
  unused: u32
  sumRed: f64
  sumGreen: f64
  sumBlue: f64
  clipped: f64
  crushed: f64
}

// @ts-ignore: decorator
@inline
function count(at: usize): void {
  store<u32>(at, load<u32>(at) + 1)
}

export function countScopes(at: usize): void {
  const job = changetype<Job>(at)
  // What is seldom wanted costs nothing when it is not.
  if (job.mask == 0 && job.cb == 0 && job.zoomed == 0) run(job, false)
  else run(job, true)
}

// @ts-ignore: decorator
@inline
function run(job: Job, more: bool): void {
  const width: i32 = job.width, rows: i32 = job.rows, cells: i32 = job.cells
  const waveform: usize = job.waveform, red: usize = job.red, green: usize = job.green, blue: usize = job.blue, luma: usize = job.luma, vector: usize = job.vector
  const mask: usize = job.mask, cbTrace: usize = job.cb, zoomed: usize = job.zoomed
  const columnOf: usize = job.columnOf, source: usize = job.source, strip: usize = job.strip
  const wr = v128.splat<u16>(<u16>job.redWeight), wg = v128.splat<u16>(<u16>job.greenWeight), wb = v128.splat<u16>(<u16>job.blueWeight), half = v128.splat<u32>(32768)
  const top = v128.splat<u16>(<u16>job.topCode), nothing = v128.splat<u16>(0), all = v128.splat<u16>(0xffff), lane = i16x8(0, 1, 2, 3, 4, 5, 6, 7)
  const gain = v128.splat<i16>(<i16>job.levelGain), offset = v128.splat<i16>(<i16>job.levelOffset), topLevel = v128.splat<i16>(<i16>job.topLevel)
  const cbCells = v128.splat<i16>(<i16>job.perCb), crCells = v128.splat<i16>(<i16>job.perCr), centre = v128.splat<i16>(<i16>(cells << 6)), perRow = v128.splat<i16>(<i16>cells)
  let sumRed: u64 = 0, sumGreen: u64 = 0, sumBlue: u64 = 0, clipped: u32 = 0, crushed: u32 = 0
  let reds = nothing, greens = nothing, blues = nothing
  const plane: usize = ((<usize>width + 7) & ~7) * 2
  for (let y = 0; y < rows; y++) {
    // First eight pixels at a time: where each is to be counted. The strip holds, for every pixel of the row, the byte offsets of
    // the levels of luma, R, G and B, the 12-bit bin of luma, and the vectorscope's cell.
    let pixel: usize = source + <usize>(y * width) * 6, at: usize = strip
    for (let x = 0; x < width; x += 8, pixel += 48, at += 16) {
      const first = v128.load(pixel), second = v128.load(pixel, 16), third = v128.load(pixel, 32)
      let r = v128.shuffle<u16>(v128.shuffle<u16>(first, second, 0, 3, 6, 9, 12, 15, 0, 0), third, 0, 1, 2, 3, 4, 5, 10, 13)
      let g = v128.shuffle<u16>(v128.shuffle<u16>(first, second, 1, 4, 7, 10, 13, 0, 0, 0), third, 0, 1, 2, 3, 4, 8, 11, 14)
      let b = v128.shuffle<u16>(v128.shuffle<u16>(first, second, 2, 5, 8, 11, 14, 0, 0, 0), third, 0, 1, 2, 3, 4, 9, 12, 15)
      const lumaLow = v128.shr<u32>(v128.add<u32>(v128.add<u32>(v128.extmul_low<u16>(r, wr), v128.extmul_low<u16>(g, wg)), v128.add<u32>(v128.extmul_low<u16>(b, wb), half)), 16)
      const lumaHigh = v128.shr<u32>(v128.add<u32>(v128.add<u32>(v128.extmul_high<u16>(r, wr), v128.extmul_high<u16>(g, wg)), v128.add<u32>(v128.extmul_high<u16>(b, wb), half)), 16)
      const l = v128.narrow<u32>(lumaLow, lumaHigh), halfLuma = v128.shr<u16>(l, 1), halfRed = v128.shr<u16>(r, 1), halfBlue = v128.shr<u16>(b, 1)
      v128.store(at, levelOf(halfLuma, gain, offset, topLevel))
      v128.store(at + plane, levelOf(halfRed, gain, offset, topLevel))
      v128.store(at + 2 * plane, levelOf(v128.shr<u16>(g, 1), gain, offset, topLevel))
      v128.store(at + 3 * plane, levelOf(halfBlue, gain, offset, topLevel))
      v128.store(at + 4 * plane, v128.shr<u16>(l, 4))
      // Cb and Cr never pass ±0.5, and the plane spans more: no cell needs holding.
      const across = v128.shr<i16>(v128.add<i16>(v128.q15mulr_sat<i16>(v128.sub<i16>(halfBlue, halfLuma), cbCells), centre), 7)
      const up = v128.shr<i16>(v128.add<i16>(v128.q15mulr_sat<i16>(v128.sub<i16>(halfRed, halfLuma), crCells), centre), 7)
      v128.store(at + 5 * plane, v128.add<i16>(v128.mul<i16>(up, perRow), across))
      if (x + 8 > width || (more && mask != 0)) {
        let counted = all
        if (x + 8 > width) counted = v128.gt<i16>(v128.splat<i16>(<i16>(width - x)), lane)
        if (more && mask != 0) counted = v128.and(counted, v128.gt<u16>(v128.load_ext<u8>(mask + <usize>(y * width + x)), nothing))
        r = v128.and(r, counted)
        g = v128.and(g, counted)
        b = v128.and(b, counted)
        // What is not counted is now black, and is taken off again.
        crushed -= 8 - popcnt(v128.bitmask<i16>(counted))
      }
      reds = v128.add<u32>(reds, v128.extadd_pairwise<u16>(r))
      greens = v128.add<u32>(greens, v128.extadd_pairwise<u16>(g))
      blues = v128.add<u32>(blues, v128.extadd_pairwise<u16>(b))
      const most = v128.max<u16>(v128.max<u16>(r, g), b), atTop = v128.ge<u16>(most, top), atZero = v128.eq<u16>(most, nothing)
      if (v128.any_true(v128.or(atTop, atZero))) {
        clipped += popcnt(v128.bitmask<i16>(atTop))
        crushed += popcnt(v128.bitmask<i16>(atZero))
      }
    }
    // Then the counting itself, pixel by pixel.
    at = strip
    for (let x = 0; x < width; x++, at += 2) {
      if (more && mask != 0 && load<u8>(mask + <usize>(y * width + x)) == 0) continue
      const column = <usize>load<u32>(columnOf + (<usize>x << 2))
      count(waveform + column + <usize>load<u16>(at))
      count(red + column + <usize>load<u16>(at + plane))
      count(green + column + <usize>load<u16>(at + 2 * plane))
      count(blue + column + <usize>load<u16>(at + 3 * plane))
      count(luma + (<usize>load<u16>(at + 4 * plane) << 2))
      count(vector + (<usize>load<u16>(at + 5 * plane) << 2))
      if (more && (cbTrace != 0 || zoomed != 0)) countMore(job, source + <usize>(y * width + x) * 6, column)
    }
    // Before sums of 32 bits can run over.
    if ((y & 1023) == 1023 || y == rows - 1) {
      sumRed += total(reds)
      sumGreen += total(greens)
      sumBlue += total(blues)
      reds = greens = blues = nothing
    }
  }
  job.sumRed = <f64>sumRed
  job.sumGreen = <f64>sumGreen
  job.sumBlue = <f64>sumBlue
  job.clipped = clipped
  job.crushed = crushed
}

/** Traces of Cb and Cr and the zoomed vectorscope, for one pixel. */
function countMore(job: Job, pixel: usize, column: usize): void {
  const r = <u32>load<u16>(pixel), g = <u32>load<u16>(pixel, 2), b = <u32>load<u16>(pixel, 4)
  const l = <i32>((job.redWeight * r + job.greenWeight * g + job.blueWeight * b + 32768) >> 16), blue = <i32>b - l, red = <i32>r - l
  if (job.cb != 0) {
    count(<usize>job.cb + column + chromaLevel(job, (blue * <i32>job.cbGain) >> 15))
    count(<usize>job.cr + column + chromaLevel(job, (red * <i32>job.crGain) >> 15))
  }
  if (job.zoomed != 0) {
    const centre: i32 = job.cells << 19, last: i32 = job.cells - 1
    const across = min(max((centre + blue * <i32>job.zoomPerCb) >> 20, 0), last), up = min(max((centre + red * <i32>job.zoomPerCr) >> 20, 0), last)
    count(<usize>job.zoomed + (<usize>(up * <i32>job.cells + across) << 2))
  }
}

// @ts-ignore: decorator
@inline
function chromaLevel(job: Job, chroma: i32): usize {
  const level = (((min(max(32768 + chroma, 0), 65535) >> 1) * <i32>job.levelGain + 16384) >> 15) + job.levelOffset
  return <usize>min(max(level >> 5, 0), <i32>job.topLevel) << 2
}

/** Byte offsets of the levels of halved codes. */
// @ts-ignore: decorator
@inline
function levelOf(halved: v128, gain: v128, offset: v128, topLevel: v128): v128 {
  const level = v128.shr<i16>(v128.add<i16>(v128.q15mulr_sat<i16>(halved, gain), offset), 5)
  return v128.shl<i16>(v128.min<i16>(v128.max<i16>(level, i16x8.splat(0)), topLevel), 2)
}

// @ts-ignore: decorator
@inline
function total(sums: v128): u64 {
  return <u64>v128.extract_lane<u32>(sums, 0) + <u64>v128.extract_lane<u32>(sums, 1) + <u64>v128.extract_lane<u32>(sums, 2) + <u64>v128.extract_lane<u32>(sums, 3)
}
