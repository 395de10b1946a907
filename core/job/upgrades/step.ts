export type Fields = Record<string, unknown>

/** From one version to the next. */
export interface Upgrade {
  /** The document of the next version, and in sentences what could not be carried over as it stood. */
  document: (document: Fields) => { document: Fields, remarks: string[] }
  edit: (edit: Fields) => Fields
}

export const isFields = (value: unknown): value is Fields => value !== null && typeof value === 'object'
