// What the footage room offers: looking through a clip's frames for cuts and for a lead frame, timecode, edit lists as
// ranges.
export * from './conform'
export * from './cuts'
export * from './lead'
export * from './lights'
export * from './sketch'
export * from './timecode'
