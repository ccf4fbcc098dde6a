// What the cards room offers: grey cards found in a picture, to be offered and never silently used.
export { findCards, type FoundCard } from './find-cards'
