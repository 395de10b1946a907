/** A finding in words: what is, with the number and its limit; why it matters; what to do. */
export interface Sentence { what: string, why: string, todo: string }
