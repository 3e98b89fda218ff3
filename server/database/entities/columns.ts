/** The kinds of columns that tables are made of. */
export const id = { type: 'integer', primary: true, generated: true } as const
export const integer = { type: 'integer' } as const
export const real = { type: 'real' } as const
export const text = { type: 'text' } as const
export const optionalText = { type: 'text', nullable: true } as const
export const optionalInteger = { type: 'integer', nullable: true } as const
export const optionalReal = { type: 'real', nullable: true } as const
export const optionalJson = { type: 'simple-json', nullable: true } as const
export const json = { type: 'simple-json' } as const
