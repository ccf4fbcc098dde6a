// A frame with a chart of 24 patches, as a made camera would write it.
import { patchMiddles, placesOn, type Corners } from '@core/cards'
import { chartPatches, lightOfLab } from '@core/cards/chart-patches'
import {
  encodingById,
  gamutById,
  gamutToGamut,
  invert,
  multiply,
  transform,
  workingGamut,
  type Vector3,
} from '@core/colour'
import { cameraMatrixOf, whiteBalanceMatrix, type CameraMatrix } from '@core/grade'
import type { Frame } from '@core/image'

export const noMatrix: CameraMatrix = {
  redOfGreen: 0,
  redOfBlue: 0,
  greenOfRed: 0,
  greenOfBlue: 0,
  blueOfRed: 0,
  blueOfGreen: 0,
}
export interface ChartShot {
  readonly encodingId?: string
  readonly stops?: number
  readonly mired?: number
  readonly tint?: number
  readonly camera?: CameraMatrix
  readonly corners?: Corners
  readonly noise?: number
}
export const upright: Corners = [
  { x: 0.25, y: 0.2 },
  { x: 0.75, y: 0.2 },
  { x: 0.75, y: 0.8 },
  { x: 0.25, y: 0.8 },
]
/** The chart as a camera writes it: light wrong by so much, colours mixed, through a curve, dark between patches. */
export function chartFrame({
  encodingId = 'log-420-95',
  stops = 0,
  mired = 0,
  tint = 0,
  camera = noMatrix,
  corners = upright,
  noise = 0,
}: ChartShot): Frame {
  const [width, height] = [480, 270]
  const { curve, gamutIds } = encodingById(encodingId)
  const toCamera = gamutToGamut(workingGamut, gamutById(gamutIds[0]))
  const wrong = multiply(invert(whiteBalanceMatrix(workingGamut, mired, tint)), invert(cameraMatrixOf(camera)))
  const gain = 2 ** -stops
  const data = new Uint16Array(width * height * 3)
  const put = (x: number, y: number, light: Vector3): void => {
    const seen = transform(toCamera, transform(wrong, light).map((v) => v * gain) as unknown as Vector3)
    seen.forEach((v, c) => {
      const grain = noise * (((x * 7919 + y * 104729 + c * 31) % 101) / 50 - 1)
      data[(y * width + x) * 3 + c] = Math.min(65535, Math.max(0, Math.round(curve.encode(v + grain) * 65535)))
    })
  }
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) put(x, y, [0.03, 0.03, 0.03])
  const at = placesOn(corners.map(({ x, y }) => ({ x: x * width, y: y * height })) as unknown as Corners)
  patchMiddles.forEach((middle, i) => {
    const light = lightOfLab(chartPatches[i]!.lab)
    for (let v = -0.42; v <= 0.42; v += 0.02)
      for (let u = -0.42; u <= 0.42; u += 0.02) {
        const { x, y } = at(middle.x + u / 6, middle.y + v / 4)
        put(Math.floor(x), Math.floor(y), light)
      }
  })
  return { width, height, data, low: 0, high: 1 }
}
