// The lattice kernel in AssemblyScript with 128-bit SIMD: the same walk through the six tetrahedra as applyLattice in
// ../lattice.ts, three channels at once. Built by bin/build-kernel into lattice-wasm.ts; tests hold it against the plain one.
// Memory (byte addresses) is laid out by wasm-kernel.ts.

/**
 * Carries `pixels` RGB triples of 16-bit codes from `source` to `target`.
 * @param positions f32 × 65536: input code → position on the axis
 * @param nodes f32 × 4 per node (RGB and one unused), red fastest, in entries of the output table
 * @param codes u16 × 65536: output table
 */
export function apply(source: usize, target: usize, pixels: i32, positions: usize, nodes: usize, size: i32, codes: usize): void {
  const green: usize = <usize>size * 16
  const blue: usize = <usize>size * green
  const far: usize = 16 + green + blue
  const lastCell: i32 = size - 2
  const half = f32x4.splat(0.5), zero = f32x4.splat(0), top = f32x4.splat(65535)
  const end = source + <usize>pixels * 6
  for (; source < end; source += 6, target += 6) {
    const pr = load<f32>(positions + (<usize>load<u16>(source) << 2))
    const pg = load<f32>(positions + (<usize>load<u16>(source, 2) << 2))
    const pb = load<f32>(positions + (<usize>load<u16>(source, 4) << 2))
    const r = min(<i32>pr, lastCell), g = min(<i32>pg, lastCell), b = min(<i32>pb, lastCell)
    const fr = pr - <f32>r, fg = pg - <f32>g, fb = pb - <f32>b
    const near = nodes + <usize>b * blue + <usize>g * green + (<usize>r << 4)
    let first: usize, second: usize, f1: f32, f2: f32, f3: f32
    if (fr >= fg) {
      if (fg >= fb) { first = 16; second = 16 + green; f1 = fr; f2 = fg; f3 = fb }
      else if (fr >= fb) { first = 16; second = 16 + blue; f1 = fr; f2 = fb; f3 = fg }
      else { first = blue; second = 16 + blue; f1 = fb; f2 = fr; f3 = fg }
    } else if (fb >= fg) { first = blue; second = green + blue; f1 = fb; f2 = fg; f3 = fr }
    else if (fb >= fr) { first = green; second = green + blue; f1 = fg; f2 = fb; f3 = fr }
    else { first = green; second = 16 + green; f1 = fg; f2 = fr; f3 = fb }
    let value = f32x4.mul(v128.load(near), f32x4.splat(1 - f1))
    value = f32x4.add(value, f32x4.mul(v128.load(near + first), f32x4.splat(f1 - f2)))
    value = f32x4.add(value, f32x4.mul(v128.load(near + second), f32x4.splat(f2 - f3)))
    value = f32x4.add(value, f32x4.mul(v128.load(near + far), f32x4.splat(f3)))
    const entry = i32x4.trunc_sat_f32x4_s(f32x4.add(f32x4.min(f32x4.max(value, zero), top), half))
    store<u16>(target, load<u16>(codes + (<usize>i32x4.extract_lane(entry, 0) << 1)))
    store<u16>(target, load<u16>(codes + (<usize>i32x4.extract_lane(entry, 1) << 1)), 2)
    store<u16>(target, load<u16>(codes + (<usize>i32x4.extract_lane(entry, 2) << 1)), 4)
  }
}
