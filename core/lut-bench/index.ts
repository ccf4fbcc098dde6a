// What the LUT bench offers: what a LUT does, what it was made for.
export * from './advice'
export * from './contact-sheet'
export * from './expects'
export * from './inspect'
export { recipeFacts, type RecipeFacts } from './recipe-facts'
export { referenceColours, type ReferenceColour } from './reference-colours'
