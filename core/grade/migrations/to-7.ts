// 7: the strength of a table in Read and in Show.
import { isObject, type Json } from './json'

export const toSchema7 = ({ read, show, ...rest }: Json): Json => ({
  ...rest,
  read: isObject(read) ? { ...read, lutStrength: 1 } : read,
  show: isObject(show) ? { ...show, lutStrength: 1 } : show,
})
