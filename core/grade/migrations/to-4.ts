// 4: controls that change along the clip.
import type { Json } from './json'

export const toSchema4 = (grade: Json): Json => ({ ...grade, along: [] })
