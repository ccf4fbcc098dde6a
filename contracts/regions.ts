// Regions as contracts: shapes, keys, how they are put together, and how they follow the picture.
import 'reflect-metadata'
import {
  Equals,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  Min,
  Validate,
  ValidateIf,
  ValidatorConstraint,
  type ValidationArguments,
  type ValidatorConstraintInterface,
} from 'class-validator'
import {
  cleaningBounds,
  isCircular,
  keyBounds,
  keyTaps,
  motionLimits,
  componentLimits,
  shapeBounds,
  trackKindById,
  trackKinds,
  type KeyTap,
  type ComponentMode,
  type Region,
  type TrackKind,
} from '@core/regions'
import { ContractError } from './check'
import { ByKind, ListOf, Listed, PartOf } from './parts'

export const idPattern = /^[A-Za-z0-9_-]{1,40}$/
const finite = { allowNaN: false, allowInfinity: false } as const
const { place, radius, rotationDegrees, share, softness, points } = shapeBounds

/** A decorator for a finite number within bounds. */
const Within =
  ({ min, max }: { readonly min: number; readonly max: number }): PropertyDecorator =>
  (target, key) => {
    IsNumber(finite)(target, key)
    Min(min)(target, key)
    Max(max)(target, key)
  }

abstract class TurnedContract {
  @Within(place) centreX!: number
  @Within(place) centreY!: number
  @Within(radius) radiusX!: number
  @Within(radius) radiusY!: number
  @Within(rotationDegrees) rotationDegrees!: number
}
class EllipseContract extends TurnedContract {
  @Equals('ellipse') kind!: 'ellipse'
}
class RectangleContract extends TurnedContract {
  @Equals('rectangle') kind!: 'rectangle'
  @Within(share) corner!: number
}
class RadialContract extends TurnedContract {
  @Equals('radial') kind!: 'radial'
  @Within({ min: 0, max: 0.999 }) core!: number
}
class LinearContract {
  @Equals('linear') kind!: 'linear'
  @Within(place) fromX!: number
  @Within(place) fromY!: number
  @Within(place) toX!: number
  @Within(place) toY!: number
}
class PlaceContract {
  @Within(place) x!: number
  @Within(place) y!: number
}
class PathPointContract extends PlaceContract {
  @Within(place) inX!: number
  @Within(place) inY!: number
  @Within(place) outX!: number
  @Within(place) outY!: number
}
class PolygonContract {
  @Equals('polygon') kind!: 'polygon'
  @ListOf(() => PlaceContract, { min: points.min, max: points.max })
  points!: PlaceContract[]
}
class PathContract {
  @Equals('path') kind!: 'path'
  @ListOf(() => PathPointContract, { min: points.min, max: points.max })
  points!: PathPointContract[]
}
const shapes = {
  ellipse: EllipseContract,
  rectangle: RectangleContract,
  radial: RadialContract,
  linear: LinearContract,
  polygon: PolygonContract,
  path: PathContract,
}

class TrackContract {
  @IsIn(trackKinds.map((k) => k.id)) kind!: TrackKind
  @IsInt() @Min(0) reference!: number
  @IsInt() @Min(0) first!: number
  @Listed({ min: 2, max: motionLimits.frames * 8 })
  @IsNumber(finite, { each: true })
  @Min(-motionLimits.value, { each: true })
  @Max(motionLimits.value, { each: true })
  values!: number[]
  @Listed({ max: motionLimits.frames * 2 })
  @IsNumber(finite, { each: true })
  @Min(0, { each: true })
  @Max(motionLimits.value, { each: true })
  quality!: number[]
}
class ShapeKeyframeContract {
  @IsInt() @Min(0) frame!: number
  @ByKind(shapes) shape!: object
}
class ShownContract {
  @IsInt() @Min(0) frame!: number
  @IsBoolean() on!: boolean
}
class MotionContract {
  @ValidateIf((m: MotionContract) => m.track !== null)
  @PartOf(() => TrackContract)
  track!: TrackContract | null
  @ListOf(() => ShapeKeyframeContract, { max: motionLimits.keys })
  keys!: ShapeKeyframeContract[]
  @IsIn(['linear', 'smooth']) path!: 'linear' | 'smooth'
  @IsBoolean() roll!: boolean
  @ListOf(() => ShownContract, { max: motionLimits.shown })
  shown!: ShownContract[]
  @IsInt() @Min(motionLimits.fadeFrames.min) @Max(motionLimits.fadeFrames.max) fadeFrames!: number
  @Within({ min: 0.05, max: 20 }) aspect!: number
}

class ShapeSourceContract {
  @Equals('shape') kind!: 'shape'
  @ByKind(shapes) shape!: object
  @Within(softness) inner!: number
  @Within(softness) outer!: number
  @IsOptional() @PartOf(() => MotionContract) motion?: MotionContract
}

class SoftRangeContract {
  @Within(keyBounds.lightness) low!: number
  @Within(keyBounds.lightness) high!: number
  @Within(keyBounds.soft) softLow!: number
  @Within(keyBounds.soft) softHigh!: number
}
class HueRangeContract {
  @Within(keyBounds.hue) centre!: number
  @Within(keyBounds.half) half!: number
  @Within(keyBounds.softDegrees) soft!: number
}
class KeyRangesContract {
  @ValidateIf((r: KeyRangesContract) => r.hue !== null)
  @PartOf(() => HueRangeContract)
  hue!: HueRangeContract | null
  @ValidateIf((r: KeyRangesContract) => r.chroma !== null)
  @PartOf(() => SoftRangeContract)
  chroma!: SoftRangeContract | null
  @ValidateIf((r: KeyRangesContract) => r.lightness !== null)
  @PartOf(() => SoftRangeContract)
  lightness!: SoftRangeContract | null
}

@ValidatorConstraint({ name: 'colours' })
class Colours implements ValidatorConstraintInterface {
  validate(value: unknown): boolean {
    return (
      Array.isArray(value) &&
      value.length <= keyBounds.colours &&
      value.every(
        (c) =>
          Array.isArray(c) &&
          c.length === 3 &&
          c.every((v) => typeof v === 'number' && Number.isFinite(v) && Math.abs(v) < 10),
      )
    )
  }
  defaultMessage({ property }: ValidationArguments): string {
    return `${property} must be at most ${keyBounds.colours} lists of three numbers`
  }
}
class KeySampleContract {
  @IsIn(['add', 'remove']) mode!: 'add' | 'remove'
  @Validate(Colours) colours!: number[][]
}
class KeyContract {
  @IsIn(keyTaps) tap!: KeyTap
  @ListOf(() => KeyRangesContract, { max: keyBounds.groups })
  groups!: KeyRangesContract[]
  @ListOf(() => KeySampleContract, { max: keyBounds.samples })
  samples!: KeySampleContract[]
}
class CleaningContract {
  @Within(cleaningBounds.calm) calm!: number
  @Within(cleaningBounds.specks) specks!: number
  @Within(cleaningBounds.holes) holes!: number
  @Within(cleaningBounds.grow) grow!: number
  @Within(cleaningBounds.follow) follow!: number
  @Within(cleaningBounds.blur) blur!: number
  @Within(cleaningBounds.low) low!: number
  @Within(cleaningBounds.high) high!: number
  @IsInt() @Within(cleaningBounds.steady) steady!: number
}
class KeySourceContract {
  @Equals('key') kind!: 'key'
  @PartOf(() => KeyContract) key!: KeyContract
  @PartOf(() => CleaningContract) cleaning!: CleaningContract
}
class RegionSourceContract {
  @Equals('region') kind!: 'region'
  @Matches(idPattern) regionId!: string
}

class ComponentContract {
  @Matches(idPattern) id!: string
  @IsIn(['add', 'subtract', 'intersect']) mode!: ComponentMode
  @IsBoolean() invert!: boolean
  @Within(share) opacity!: number
  @IsObject()
  @ByKind({ shape: ShapeSourceContract, key: KeySourceContract, region: RegionSourceContract })
  source!: ShapeSourceContract | KeySourceContract | RegionSourceContract
}

/** A region as a recipe keeps it. */
export class RecipeRegionContract {
  @Matches(idPattern) id!: string
  @IsString() @Length(1, 80) name!: string
  @IsBoolean() invert!: boolean
  @Within(share) strength!: number
  @ListOf(() => ComponentContract, { max: componentLimits.components })
  components!: ComponentContract[]
}
export class RegionContract extends RecipeRegionContract {
  @IsBoolean() enabled!: boolean
}

/**
 * Components are told apart; regions are built from others that are there and not from themselves; tracks hold whole
 * frames; frames rise.
 */
export function requireRegions(regions: readonly RecipeRegionContract[]): void {
  const all = regions as unknown as readonly Region[]
  const circular = new Set(all.flatMap((region, i) => (isCircular(region, all) ? [i] : [])))
  regions.forEach((region, i) => {
    const field = `regions.${i}`
    if (new Set(region.components.map((p) => p.id)).size !== region.components.length)
      throw new ContractError(`Two components of "${region.name}" have the same id.`, `${field}.components`)
    region.components.forEach(({ source }, n) => {
      const at = `${field}.components.${n}.source`
      if (source instanceof RegionSourceContract && !regions.some((r) => r.id === source.regionId))
        throw new ContractError(`The region "${region.name}" is built from one that is not there.`, `${at}.regionId`)
      if (source instanceof ShapeSourceContract && source.motion)
        requireMotion(source.motion, (source.shape as { kind: string }).kind, `${at}.motion`)
    })
    if (circular.has(i))
      throw new ContractError(`The region "${region.name}" would be built from itself.`, `${field}.components`)
  })
}

function requireMotion({ track, keys, shown }: MotionContract, kind: string, field: string): void {
  if (track) {
    const { numbers } = trackKindById(track.kind)
    const frames = track.values.length / numbers
    if (!Number.isInteger(frames) || track.quality.length !== frames * 2)
      throw new ContractError(
        `A track of this kind holds ${numbers} values and 2 of quality for each frame.`,
        `${field}.track`,
      )
    if (frames > motionLimits.frames)
      throw new ContractError(`A track holds at most ${motionLimits.frames} frames.`, `${field}.track`)
  }
  for (const [name, list] of [
    ['keys', keys],
    ['shown', shown],
  ] as const)
    if (list.some((k, i) => k.frame <= (list[i - 1]?.frame ?? -Infinity)))
      throw new ContractError('Frames must rise.', `${field}.${name}`)
  if (keys.some((k) => (k.shape as { kind: string }).kind !== kind))
    throw new ContractError('A keyframe holds another kind of shape.', `${field}.keys`)
}
