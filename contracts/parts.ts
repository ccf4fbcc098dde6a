// Fields that hold other contracts, or lists: how many a list may hold and what its items are. They are counted before
// anything is built from the data, because building and validating costs a thousand times what counting does.
import { Type } from 'class-transformer'
import { ArrayMaxSize, ArrayMinSize, IsArray, IsIn, IsObject, ValidateNested } from 'class-validator'

type Contract = new () => object
interface Part {
  /** A list may hold so many. */
  readonly max?: number
  /** The contract of what the field holds, for these data; undefined where it is none. */
  readonly of?: (data: unknown) => Contract | undefined
}
export interface Bounds {
  readonly min?: number
  readonly max: number
}

const partsOf = new WeakMap<object, Map<string, Part>>()

function remember(target: object, key: string | symbol, part: Part): void {
  const parts = partsOf.get(target) ?? new Map<string, Part>()
  parts.set(String(key), part)
  partsOf.set(target, parts)
}

function decorate(target: object, key: string | symbol, decorators: readonly PropertyDecorator[]): void {
  for (const decorator of decorators) decorator(target, key)
}

/** A field that holds one object of a contract. */
export const PartOf =
  (of: () => Contract): PropertyDecorator =>
  (target, key) => {
    decorate(target, key, [IsObject(), ValidateNested(), Type(of)])
    remember(target, key, { of: () => of() })
  }

// Validating what is nested takes a list for an object, and an empty one for a sound one.
const everyOne = { each: true, message: 'each value in $property must be an object' } as const

/** A field that holds a list of objects of a contract. */
export const ListOf =
  (of: () => Contract, bounds: Bounds): PropertyDecorator =>
  (target, key) => {
    decorate(target, key, [...sized(bounds), IsObject(everyOne), ValidateNested(everyOne), Type(of)])
    remember(target, key, { max: bounds.max, of: () => of() })
  }

/** A field that holds a list of values; what they are is for other decorators to say. */
export const Listed =
  (bounds: Bounds): PropertyDecorator =>
  (target, key) => {
    decorate(target, key, sized(bounds))
    remember(target, key, { max: bounds.max })
  }

const sized = ({ min = 0, max }: Bounds): readonly PropertyDecorator[] => [
  IsArray(),
  ...(min > 0 ? [ArrayMinSize(min)] : []),
  ArrayMaxSize(max),
]

/** What is none of the kinds. */
class UnknownKind {
  @IsIn([]) kind!: never
}

/** A field that holds one object whose `kind` says which of these contracts it meets. */
export const ByKind =
  (kinds: Readonly<Record<string, Contract>>): PropertyDecorator =>
  (target, key) => {
    const subTypes = Object.entries(kinds).map(([name, value]) => ({ name, value }))
    decorate(target, key, [
      IsObject(),
      ValidateNested(),
      Type(() => UnknownKind, { discriminator: { property: 'kind', subTypes }, keepDiscriminatorProperty: true }),
    ])
    remember(target, key, {
      of: (data) => {
        const kind = (data as { kind?: unknown } | null)?.kind
        return typeof kind === 'string' && Object.hasOwn(kinds, kind) ? kinds[kind] : undefined
      },
    })
  }

/** A list in data that another contract checks (a grade in a request for its save), or that is refused as unknown. */
const mostUnlisted = 50_000

export interface Overlong {
  readonly path: string
  readonly max: number
}

/** The first list that is longer than its contract allows, however deep. */
export function overlong(contract: Contract | undefined, data: unknown, path = ''): Overlong | null {
  if (typeof data !== 'object' || data === null) return null
  for (const [key, value] of Object.entries(data as Record<string, unknown>)) {
    if (typeof value !== 'object' || value === null) continue
    const at = path ? `${path}.${key}` : key
    const part = contract && partOf(contract, key)
    const list = Array.isArray(value) ? value : null
    const max = part?.max ?? mostUnlisted
    if (list && list.length > max) return { path: at, max }
    for (const item of list ?? [value]) {
      const found = overlong(part?.of?.(item), item, at)
      if (found) return found
    }
  }
  return null
}

/** A contract may extend another. */
function partOf(contract: Contract, key: string): Part | undefined {
  for (let of = contract.prototype as object | null; of; of = Object.getPrototypeOf(of) as object | null) {
    const part = partsOf.get(of)?.get(key)
    if (part) return part
  }
  return undefined
}
