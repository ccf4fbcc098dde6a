// The scopes pass in AssemblyScript: counts one frame's rows for waveform, parade, vectorscope and histogram. Does
// exactly what countPlain in ../scopes.ts does; a test compares the two. Built by bin/build-kernel; index.ts lays out
// the memory.

/**
 * So many rows are counted together: column by column, so that a column's counters stay near while they are in use. As
 * many as `stripRows` in index.ts makes room for.
 */
const rowsTogether: i32 = 8

/** Addresses and numbers, in the order in which index.ts writes them: twenty-eight u32, then five f64. */
@unmanaged
class Job {
  source: u32
  width: u32
  rows: u32
  /** u32 per column of the traces: the first pixel of a row that is counted in it; one more for the end. */
  columnStart: u32
  /** Levels of a code in 32nds: (code / 2 · gain) / 32768 + offset. */
  levelGain: u32
  levelOffset: i32
  levels: u32
  columns: u32
  /** The traces of luma, R, G and B one after the other, each column by column, `levels` counters to a column. */
  traces: u32
  luma: u32
  vector: u32
  cells: u32
  topCode: u32
  /** Weights of R and B in luma, in 32768ths, and 128ths of cells for half a difference of 32768 codes. */
  redWeight: u32
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
  /** Room for where the pixels of eight rows are counted. */
  strip: u32
  unused1: u32
  unused2: u32
  /** Added to from call to call, as the counters are. */
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
  const width: i32 = job.width,
    rows: i32 = job.rows,
    cells: i32 = job.cells
  const traces: usize = job.traces,
    luma: usize = job.luma,
    vector: usize = job.vector
  const mask: usize = job.mask,
    cbTrace: usize = job.cb,
    zoomed: usize = job.zoomed
  const columnStart: usize = job.columnStart,
    columns: i32 = job.columns,
    columnBytes: usize = job.levels << 2,
    trace: usize = columnBytes * <usize>columns,
    source: usize = job.source,
    strip: usize = job.strip
  const wr = v128.splat<i16>(<i16>job.redWeight),
    wb = v128.splat<i16>(<i16>job.blueWeight)
  const top = v128.splat<u16>(<u16>job.topCode),
    nothing = v128.splat<u16>(0),
    all = v128.splat<u16>(0xffff),
    lane = i16x8(0, 1, 2, 3, 4, 5, 6, 7)
  const gain = v128.splat<i16>(<i16>job.levelGain),
    offset = v128.splat<i16>(<i16>job.levelOffset),
    topLevel = v128.splat<i16>(<i16>(job.levels - 1))
  const cbCells = v128.splat<i16>(<i16>job.perCb),
    crCells = v128.splat<i16>(<i16>job.perCr),
    centre = v128.splat<i16>(<i16>(cells << 6)),
    perRow = v128.splat<i16>(<i16>cells)
  let sumRed: u64 = 0,
    sumGreen: u64 = 0,
    sumBlue: u64 = 0,
    clipped: u32 = 0,
    crushed: u32 = 0
  let reds = nothing,
    greens = nothing,
    blues = nothing
  const plane: usize = ((<usize>width + 7) & ~7) * 2,
    stripRow: usize = 6 * plane
  for (let y = 0; y < rows; y++) {
    const inStrip = y % rowsTogether
    // First eight pixels at a time: where each is to be counted. The strip holds, for every pixel of the row, the byte
    // offsets of its luma's, R's, G's and B's counters among their column's, that of the 12-bit bin of luma, and the
    // vectorscope's cell.
    let pixel: usize = source + <usize>(y * width) * 6,
      at: usize = strip + <usize>inStrip * stripRow
    for (let x = 0; x < width; x += 8, pixel += 48, at += 16) {
      const first = v128.load(pixel),
        second = v128.load(pixel, 16),
        third = v128.load(pixel, 32)
      // No two samples of a channel lie in the same lane of the three: they are laid over one another, then put in
      // order.
      const mixedRed = v128.shuffle<u16>(
        v128.shuffle<u16>(first, second, 0, 9, 2, 3, 12, 5, 6, 15),
        third,
        0,
        1,
        10,
        3,
        4,
        13,
        6,
        7,
      )
      const mixedGreen = v128.shuffle<u16>(
        v128.shuffle<u16>(first, second, 0, 1, 10, 3, 4, 13, 6, 7),
        third,
        8,
        1,
        2,
        11,
        4,
        5,
        14,
        7,
      )
      const mixedBlue = v128.shuffle<u16>(
        v128.shuffle<u16>(first, second, 8, 1, 2, 11, 4, 5, 14, 7),
        third,
        0,
        9,
        2,
        3,
        12,
        5,
        6,
        15,
      )
      let r = v128.shuffle<u16>(mixedRed, mixedRed, 0, 3, 6, 1, 4, 7, 2, 5)
      let g = v128.shuffle<u16>(mixedGreen, mixedGreen, 1, 4, 7, 2, 5, 0, 3, 6)
      let b = v128.shuffle<u16>(mixedBlue, mixedBlue, 2, 5, 0, 3, 6, 1, 4, 7)
      const halfRed = v128.shr<u16>(r, 1),
        halfGreen = v128.shr<u16>(g, 1),
        halfBlue = v128.shr<u16>(b, 1)
      const halfLuma = v128.add<i16>(
        v128.add<i16>(halfGreen, v128.q15mulr_sat<i16>(v128.sub<i16>(halfRed, halfGreen), wr)),
        v128.q15mulr_sat<i16>(v128.sub<i16>(halfBlue, halfGreen), wb),
      )
      v128.store(at, levelOf(halfLuma, gain, offset, topLevel))
      v128.store(at + plane, levelOf(halfRed, gain, offset, topLevel))
      v128.store(at + 2 * plane, levelOf(halfGreen, gain, offset, topLevel))
      v128.store(at + 3 * plane, levelOf(halfBlue, gain, offset, topLevel))
      v128.store(at + 4 * plane, v128.shl<i16>(v128.shr<u16>(halfLuma, 3), 2))
      // Cb and Cr never pass ±0.5, and the plane spans more: no cell needs holding.
      const across = v128.shr<i16>(
        v128.add<i16>(v128.q15mulr_sat<i16>(v128.sub<i16>(halfBlue, halfLuma), cbCells), centre),
        7,
      )
      const up = v128.shr<i16>(
        v128.add<i16>(v128.q15mulr_sat<i16>(v128.sub<i16>(halfRed, halfLuma), crCells), centre),
        7,
      )
      v128.store(at + 5 * plane, v128.add<i16>(v128.mul<i16>(up, perRow), across))
      if (x + 8 > width || (more && mask != 0)) {
        let counted = all
        if (x + 8 > width) counted = v128.gt<i16>(v128.splat<i16>(<i16>(width - x)), lane)
        if (more && mask != 0)
          counted = v128.and(counted, v128.gt<u16>(v128.load_ext<u8>(mask + <usize>(y * width + x)), nothing))
        r = v128.and(r, counted)
        g = v128.and(g, counted)
        b = v128.and(b, counted)
        // What is not counted is now black, and is taken off again.
        crushed -= 8 - popcnt(v128.bitmask<i16>(counted))
      }
      reds = v128.add<u32>(reds, v128.extadd_pairwise<u16>(r))
      greens = v128.add<u32>(greens, v128.extadd_pairwise<u16>(g))
      blues = v128.add<u32>(blues, v128.extadd_pairwise<u16>(b))
      const most = v128.max<u16>(v128.max<u16>(r, g), b),
        atTop = v128.ge<u16>(most, top),
        atZero = v128.eq<u16>(most, nothing)
      if (v128.any_true(v128.or(atTop, atZero))) {
        clipped += popcnt(v128.bitmask<i16>(atTop))
        crushed += popcnt(v128.bitmask<i16>(atZero))
      }
    }
    // Then the counting itself, pixel by pixel.
    if (inStrip == rowsTogether - 1 || y == rows - 1) {
      let begin = 0,
        counters = traces
      for (let column = 0; column < columns; column++, counters += columnBytes) {
        const end = <i32>load<u32>(columnStart + ((<usize>(column + 1)) << 2))
        for (let row = 0; row <= inStrip; row++) {
          at = strip + <usize>row * stripRow + ((<usize>begin) << 1)
          for (let x = begin; x < end; x++, at += 2) {
            if (more && mask != 0 && load<u8>(mask + <usize>((y - inStrip + row) * width + x)) == 0) continue
            count(counters + <usize>load<u16>(at))
            count(counters + trace + <usize>load<u16>(at + plane))
            count(counters + 2 * trace + <usize>load<u16>(at + 2 * plane))
            count(counters + 3 * trace + <usize>load<u16>(at + 3 * plane))
            count(luma + <usize>load<u16>(at + 4 * plane))
            count(vector + ((<usize>load<u16>(at + 5 * plane)) << 2))
            if (more && (cbTrace != 0 || zoomed != 0))
              countMore(job, source + <usize>((y - inStrip + row) * width + x) * 6, counters - traces)
          }
        }
        begin = end
      }
    }
    // Before sums of 32 bits can run over.
    if ((y & 1023) == 1023 || y == rows - 1) {
      sumRed += total(reds)
      sumGreen += total(greens)
      sumBlue += total(blues)
      reds = greens = blues = nothing
    }
  }
  job.sumRed += <f64>sumRed
  job.sumGreen += <f64>sumGreen
  job.sumBlue += <f64>sumBlue
  job.clipped += <f64>clipped
  job.crushed += <f64>(<i32>crushed)
}

/** Traces of Cb and Cr and the zoomed vectorscope, for one pixel. */
function countMore(job: Job, pixel: usize, column: usize): void {
  const r = <u32>load<u16>(pixel),
    g = <u32>load<u16>(pixel, 2),
    b = <u32>load<u16>(pixel, 4)
  const half =
      ((<i32>g) >> 1) +
      product(((<i32>r) >> 1) - ((<i32>g) >> 1), job.redWeight) +
      product(((<i32>b) >> 1) - ((<i32>g) >> 1), job.blueWeight),
    l = half << 1
  const blue = ((<i32>b) & ~1) - l,
    red = ((<i32>r) & ~1) - l
  if (job.cb != 0) {
    count(<usize>job.cb + column + chromaLevel(job, (blue * <i32>job.cbGain) >> 15))
    count(<usize>job.cr + column + chromaLevel(job, (red * <i32>job.crGain) >> 15))
  }
  if (job.zoomed != 0) {
    const centre: i32 = job.cells << 19,
      last: i32 = job.cells - 1
    const across = min(max((centre + blue * <i32>job.zoomPerCb) >> 20, 0), last),
      up = min(max((centre + red * <i32>job.zoomPerCr) >> 20, 0), last)
    count(<usize>job.zoomed + ((<usize>(up * <i32>job.cells + across)) << 2))
  }
}

/** As q15mulr does it. */
// @ts-ignore: decorator
@inline
function product(value: i32, factor: u32): i32 {
  return (value * <i32>factor + 16384) >> 15
}

// @ts-ignore: decorator
@inline
function chromaLevel(job: Job, chroma: i32): usize {
  const level = (((min(max(32768 + chroma, 0), 65535) >> 1) * <i32>job.levelGain + 16384) >> 15) + job.levelOffset
  return (<usize>min(max(level >> 5, 0), <i32>job.levels - 1)) << 2
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
  return (
    <u64>v128.extract_lane<u32>(sums, 0) +
    <u64>v128.extract_lane<u32>(sums, 1) +
    <u64>v128.extract_lane<u32>(sums, 2) +
    <u64>v128.extract_lane<u32>(sums, 3)
  )
}
