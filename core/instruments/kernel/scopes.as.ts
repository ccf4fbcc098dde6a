// The scopes pass in AssemblyScript: counts one frame's rows for waveform, parade, vectorscope and histogram. Does exactly
// what countPlain in ../scopes.ts does; a test compares the two. Built by bin/build-kernel; index.ts lays out the memory.

/** Addresses and numbers, in the order in which index.ts writes them: twenty-six u32, then five f64. */
@unmanaged
class Job {
  source: u32
  width: u32
  rows: u32
  /** u32 per picture column: byte offset of its counters. */
  columnOf: u32
  /** u16 per 12-bit code: byte offset of its level. */
  levelOf: u32
  waveform: u32
  red: u32
  green: u32
  blue: u32
  luma: u32
  vector: u32
  cells: u32
  topCode: u32
  band: u32
  /** Weights of luma in 65536ths, and cells per code of colour difference in 2^20ths. */
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
  /** The zoomed vectorscope, 0 where it is not wanted, and how much it is zoomed. */
  zoomed: u32
  zoom: u32
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
  const width: i32 = job.width, rows: i32 = job.rows, band: i32 = job.band, cells: i32 = job.cells, top = job.topCode
  const wr = job.redWeight, wg = job.greenWeight, wb = job.blueWeight, perCb: i32 = job.perCb, perCr: i32 = job.perCr
  const waveform: usize = job.waveform, red: usize = job.red, green: usize = job.green, blue: usize = job.blue, luma: usize = job.luma, vector: usize = job.vector
  const mask: usize = job.mask, cbTrace: usize = job.cb, crTrace: usize = job.cr, zoomed: usize = job.zoomed, zoom: i32 = job.zoom, cbGain: i32 = job.cbGain, crGain: i32 = job.crGain
  const columnOf: usize = job.columnOf, levelOf: usize = job.levelOf, source: usize = job.source
  const centre: i32 = cells << 19, lastCell = cells - 1
  let sumRed: u64 = 0, sumGreen: u64 = 0, sumBlue: u64 = 0, clipped: u32 = 0, crushed: u32 = 0
  // A band of a few columns at a time: its counters stay in the nearest cache.
  for (let left = 0; left < width; left += band) {
    const right = min(width, left + band)
    for (let y = 0; y < rows; y++) {
      let pixel = source + <usize>(y * width + left) * 6
      for (let x = left; x < right; x++, pixel += 6) {
        if (more && mask != 0 && load<u8>(mask + <usize>(y * width + x)) == 0) continue
        const r = <u32>load<u16>(pixel), g = <u32>load<u16>(pixel, 2), b = <u32>load<u16>(pixel, 4)
        const l = <i32>((wr * r + wg * g + wb * b + 32768) >> 16)
        const column = <usize>load<u32>(columnOf + (<usize>x << 2))
        const bin = <usize>(l >> 4) << 2
        count(waveform + column + <usize>load<u16>(levelOf + (bin >> 1)))
        count(red + column + <usize>load<u16>(levelOf + (<usize>(r >> 4) << 1)))
        count(green + column + <usize>load<u16>(levelOf + (<usize>(g >> 4) << 1)))
        count(blue + column + <usize>load<u16>(levelOf + (<usize>(b >> 4) << 1)))
        count(luma + bin)
        // Cb and Cr never pass ±0.5, and the plane spans more: no cell needs holding.
        const across = (centre + (<i32>b - l) * perCb) >> 20, up = (centre + (<i32>r - l) * perCr) >> 20
        count(vector + (<usize>(up * cells + across) << 2))
        if (more && cbTrace != 0) {
          count(cbTrace + column + <usize>load<u16>(levelOf + (<usize>(min(max(32768 + (((<i32>b - l) * cbGain) >> 15), 0), 65535) >> 4) << 1)))
          count(crTrace + column + <usize>load<u16>(levelOf + (<usize>(min(max(32768 + (((<i32>r - l) * crGain) >> 15), 0), 65535) >> 4) << 1)))
        }
        if (more && zoomed != 0) {
          const nearAcross = min(max((centre + (<i32>b - l) * perCb * zoom) >> 20, 0), lastCell), nearUp = min(max((centre + (<i32>r - l) * perCr * zoom) >> 20, 0), lastCell)
          count(zoomed + (<usize>(nearUp * cells + nearAcross) << 2))
        }
        sumRed += r
        sumGreen += g
        sumBlue += b
        if (r >= top || g >= top || b >= top) clipped++
        else if ((r | g | b) == 0) crushed++
      }
    }
  }
  job.sumRed = <f64>sumRed
  job.sumGreen = <f64>sumGreen
  job.sumBlue = <f64>sumBlue
  job.clipped = clipped
  job.crushed = crushed
}
