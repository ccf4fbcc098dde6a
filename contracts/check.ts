// Checking plain data against a contract, with one sentence per fault.
import 'reflect-metadata'
import { plainToInstance, type ClassConstructor } from 'class-transformer'
import { validateSync, type ValidationError } from 'class-validator'
import { overlong } from './parts'

/** Data that did not meet its contract. `field` is the path of the first fault. */
export class ContractError extends Error {
  constructor(
    message: string,
    readonly field: string,
  ) {
    super(message)
    this.name = 'ContractError'
  }
}

/**
 * Returns the data as an instance of the contract. Unknown fields are faults. Lists are counted before anything is
 * built. Throws ContractError.
 */
export function checked<T extends object>(contract: ClassConstructor<T>, data: unknown): T {
  if (typeof data !== 'object' || data === null || Array.isArray(data))
    throw new ContractError('An object was expected.', '')
  const forbidden = forbiddenKey(data)
  if (forbidden !== null) throw new ContractError(`A field named "${forbidden}" is not allowed.`, forbidden)
  const long = overlong(contract, data)
  if (long) throw new ContractError(`${capital(long.path)} must hold no more than ${long.max} elements.`, long.path)
  const instance = plainToInstance(contract, data)
  const faults = validateSync(instance, { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true })
  const first = tellingFault(faults)
  if (!first) return instance
  const { path, message } = firstFault(first, '')
  throw new ContractError(message, path)
}

function firstFault(fault: ValidationError, parent: string): { path: string; message: string } {
  const path = parent ? `${parent}.${fault.property}` : fault.property
  const child = tellingFault(fault.children ?? [])
  if (child) return firstFault(child, path)
  const message = Object.values(fault.constraints ?? {})[0] ?? 'The value is not allowed.'
  return { path, message: `${capital(message)}${message.endsWith('.') ? '' : '.'}` }
}

const capital = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`

/** What is wrong says more than what is strange: of a thing of no known kind every field is. */
const tellingFault = (faults: readonly ValidationError[]): ValidationError | undefined =>
  faults.find((f) => !f.constraints?.['whitelistValidation']) ?? faults[0]

const forbiddenKeys = new Set(['__proto__', 'constructor', 'prototype'])
const deepest = 24

/** The first key that could reach an object's prototype, however deep; data nested too deeply counts as such. */
function forbiddenKey(data: unknown, depth = 0): string | null {
  if (typeof data !== 'object' || data === null) return null
  if (depth > deepest) return '…'
  for (const [key, value] of Object.entries(data)) {
    const found = forbiddenKeys.has(key) ? key : forbiddenKey(value, depth + 1)
    if (found !== null) return found
  }
  return null
}
