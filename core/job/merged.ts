/** All members of a union of objects as one object. */
export type Merged<U> = Flat<(U extends unknown ? (member: U) => void : never) extends (all: infer I) => void ? I : never>
type Flat<T> = { [K in keyof T]: T[K] }
