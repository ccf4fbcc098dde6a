// What the readings room offers: house standards and verdicts.
export * from './standards'
