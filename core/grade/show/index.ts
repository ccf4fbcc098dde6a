// The Show station's maths: working-linear light becomes display-linear light.
import { gamutById, gamutToGamut, middleGrey, workingGamut, type Display } from '../../colour'
import type { ShowSettings } from '../document'
import { curveOperation, matrixOperation, type Operation } from '../operation'
import { gamutCompression } from './gamut-compression'
import { printCurve } from './print'
import { rendering } from './rendering'
import { rolloff, rolloffCurve } from './rolloff'

export * from './parameters'
export { printCurve, rolloffCurve }

/**
 * Scene-linear AP1 → display-linear RGB, before anything is held to the display's ends. For the method "LUT" this is
 * the straight way; the LUT itself is a link of the chain.
 */
export function prepareShow({ method, gamutMethod, params }: ShowSettings, display: Display): readonly Operation[] {
  const operations: Operation[] = []
  if (method === 'print')
    operations.push(
      curveOperation(
        printCurve(
          { contrast: params.printContrast, toe: params.toe, shoulder: params.shoulder, grey: params.greyPlacement },
          display.peak,
        ),
      ),
    )
  if (method === 'rendered')
    // The rendering draws colours in by itself.
    return rendering(
      { maximum: middleGrey * 2 ** params.sceneMaximumStops, toe: params.toe, bleach: params.bleach },
      { gamut: gamutById(display.gamutId), peak: display.peak },
    )
  operations.push(matrixOperation(gamutToGamut(workingGamut, gamutById(display.gamutId))))
  if (method === 'rolloff') {
    const curve = rolloffCurve(
      display.peak * 2 ** -params.kneeStops,
      middleGrey * 2 ** params.sceneMaximumStops,
      display.peak,
    )
    operations.push(rolloff(curve, params.bleach))
  }
  if (gamutMethod === 'compress') operations.push(gamutCompression(params.gamutThreshold, params.gamutLimit))
  return operations
}
