// Whether two parts of grade documents say the same.
import stringify from 'fast-json-stable-stringify'

/** Independent of the order of keys, which the database does not keep; a key without a value counts as left out. */
export const same = (a: unknown, b: unknown): boolean => a === b || stringify(a) === stringify(b)
