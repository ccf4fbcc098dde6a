// What the bake room offers: grades as tables, fitted and written.
export * from './bake'
export * from './export'
