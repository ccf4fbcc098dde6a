// 2: conversion by LUT in Read and Show, shoulders and gamut compression, and the side one works on.
// Literal: what an old schema meant never changes, whatever the program offers by now.
import { isObject, type Json } from './json'

const showParameters: Json = {
  kneeStops: 1,
  sceneMaximumStops: 6,
  bleach: 0.35,
  printContrast: 1.25,
  toe: 0.4,
  shoulder: 0.5,
  greyPlacement: 0.16,
  gamutThreshold: 0.8,
  gamutLimit: 1.3,
}

export const toSchema2 = ({ read, show, ...rest }: Json): Json => ({
  ...rest,
  working: 'scene',
  read: isObject(read) ? { method: 'formula', lutHash: null, ...read } : read,
  show: isObject(show) ? { ...show, lutHash: null, gamutMethod: 'clip', params: showParameters } : show,
})
