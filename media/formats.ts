// How a file may store its samples, and the planes they are decoded to. Only the order of samples changes on the way;
// where it must be more (rare chroma layouts), the list says so.
import type { PlaneLayout } from '@core/image'

export interface PlanarFormat extends Omit<PlaneLayout, 'width' | 'height'> {
  readonly name: string
}

const ycbcr = (name: string, bitDepth: number, chromaShiftX: 0 | 1, chromaShiftY: 0 | 1): PlanarFormat => ({
  name,
  model: 'ycbcr',
  bitDepth,
  chromaShiftX,
  chromaShiftY,
})
/** How the decoder's names of RGB and grey formats end. */
function sampleSuffix(bitDepth: number): string {
  if (bitDepth === 8) return ''
  return bitDepth === 32 ? 'f32le' : `${bitDepth}le`
}
const rgb = (bitDepth: number): PlanarFormat => ({
  name: `gbrp${sampleSuffix(bitDepth)}`,
  model: 'rgb',
  bitDepth,
  chromaShiftX: 0,
  chromaShiftY: 0,
})
const grey = (bitDepth: number): PlanarFormat => ({
  name: `gray${sampleSuffix(bitDepth)}`,
  model: 'grey',
  bitDepth,
  chromaShiftX: 0,
  chromaShiftY: 0,
})

const packed: Readonly<Record<string, PlanarFormat>> = {
  yuyv422: ycbcr('yuv422p', 8, 1, 0),
  uyvy422: ycbcr('yuv422p', 8, 1, 0),
  yvyu422: ycbcr('yuv422p', 8, 1, 0),
  nv16: ycbcr('yuv422p', 8, 1, 0),
  nv12: ycbcr('yuv420p', 8, 1, 1),
  nv21: ycbcr('yuv420p', 8, 1, 1),
  p010le: ycbcr('yuv420p10le', 10, 1, 1),
  p210le: ycbcr('yuv422p10le', 10, 1, 0),
  y210le: ycbcr('yuv422p10le', 10, 1, 0),
  y212le: ycbcr('yuv422p12le', 12, 1, 0),
  xv30le: ycbcr('yuv444p10le', 10, 0, 0),
  xv36le: ycbcr('yuv444p12le', 12, 0, 0),
  // Chroma of these layouts is interpolated by the decoder.
  yuv411p: ycbcr('yuv422p', 8, 1, 0),
  uyyvyy411: ycbcr('yuv422p', 8, 1, 0),
  yuv410p: ycbcr('yuv420p', 8, 1, 1),
  yuv440p: ycbcr('yuv444p', 8, 0, 0),
  x2rgb10le: rgb(10),
  x2bgr10le: rgb(10),
  pal8: rgb(8),
  ya8: grey(8),
  ya16le: grey(16),
  ya16be: grey(16),
  rgbf16le: rgb(32),
  rgbaf16le: rgb(32),
  rgbf32le: rgb(32),
  rgbaf32le: rgb(32),
}

/** The planes for a stored format; undefined for formats that cannot be read. */
export function planarFor(stored: string): PlanarFormat | undefined {
  const known = packed[stored]
  if (known) return known
  const planar = /^yuva?(j?)(420|422|444)p(9|10|12|14|16)?(le|be)?$/.exec(stored)
  if (planar) {
    const [, jpeg = '', layout = '', depth] = planar
    return ycbcr(
      `yuv${jpeg}${layout}p${depth ? `${depth}le` : ''}`,
      Number(depth ?? 8),
      layout === '444' ? 0 : 1,
      layout === '420' ? 1 : 0,
    )
  }
  const planes = /^gbra?p(9|10|12|14|16|f32)?(le|be)?$/.exec(stored)
  if (planes) return rgb(planes[1] === 'f32' ? 32 : Number(planes[1] ?? 8))
  if (/^(rgb|bgr)(24|0)$|^0(rgb|bgr)$|^(rgba|bgra|argb|abgr)$/.test(stored)) return rgb(8)
  if (/^(rgb48|bgr48|rgba64|bgra64)(le|be)$/.test(stored)) return rgb(16)
  const mono = /^gray(9|10|12|14|16|f32)?(le|be)?$/.exec(stored)
  return mono ? grey(mono[1] === 'f32' ? 32 : Number(mono[1] ?? 8)) : undefined
}

export const chromaName = ({
  model,
  chromaShiftX,
  chromaShiftY,
}: PlanarFormat): '4:2:0' | '4:2:2' | '4:4:4' | 'RGB' | 'grey' => {
  if (model === 'rgb') return 'RGB'
  if (model === 'grey') return 'grey'
  if (chromaShiftY) return '4:2:0'
  if (chromaShiftX) return '4:2:2'
  return '4:4:4'
}
