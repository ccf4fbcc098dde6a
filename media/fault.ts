// What cannot be read, in words for the person who brought it.

export type MediaFaultCode = 'unreadable_media' | 'no_such_frame' | 'undecodable_frame'

/** A file, or a frame of one, that cannot be used. The message is one sentence; the hint says what to do. */
export class MediaFault extends Error {
  constructor(
    readonly code: MediaFaultCode,
    message: string,
    readonly hint?: string,
  ) {
    super(message)
    this.name = 'MediaFault'
  }
}

export const unreadableMedia = (
  message: string,
  hint = 'Export the clip again from its source and import that.',
): MediaFault => new MediaFault('unreadable_media', message, hint)

/** Pictures of several sizes in one film, in the order of `sizes`. */
export const changingSize = (name: string, [first = '', next = '']: readonly string[]): MediaFault =>
  unreadableMedia(
    `"${name}" changes its picture from ${first} to ${next} on the way.`,
    'Export it in one size, or cut it into one file for each size.',
  )

/** Fewer frames can be read than the file promises. */
export const damagedMedia = (name: string, readable: number, promised: number): MediaFault =>
  unreadableMedia(
    `"${name}" is damaged or ends early: ${readable} of its ${promised} frames can be read.`,
    'Copy it again from the card, or export it again.',
  )
