// Stored documents as they are: of a shape that only their own schema knows.

export type Json = Readonly<Record<string, unknown>>
export const isObject = (v: unknown): v is Json => typeof v === 'object' && v !== null && !Array.isArray(v)

interface LiteralStep {
  readonly id: string
  readonly kind: string
  readonly name: string
  readonly params: Json
}

/** A step as schemas 2 to 6 stored them, on the side that the grade worked on. */
export const storedStep = (step: LiteralStep, working: unknown): Json => ({
  ...step,
  enabled: true,
  strength: 1,
  side: working === 'display' ? 'display' : 'scene',
})

/** New steps of the whole picture behind those they belong to; one whose id is there already is not added. */
export function withStepsBehind(
  steps: readonly unknown[],
  working: unknown,
  behind: Readonly<Record<string, readonly LiteralStep[]>>,
): readonly unknown[] {
  return steps.flatMap((step) => {
    const more = isObject(step) && step['regionId'] === undefined ? behind[String(step['kind'])] : undefined
    const missing = (more ?? []).filter(({ id }) => !steps.some((s) => isObject(s) && s['id'] === id))
    return [step, ...missing.map((s) => storedStep(s, working))]
  })
}

/** The parameters that steps of some kinds got, beside those they had. */
export function withMoreParameters(step: unknown, more: Readonly<Record<string, Json>>): unknown {
  const added = isObject(step) ? more[String(step['kind'])] : undefined
  return isObject(step) && isObject(step['params']) && added
    ? { ...step, params: { ...added, ...step['params'] } }
    : step
}
