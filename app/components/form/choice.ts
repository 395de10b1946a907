/** One of a few that stand side by side. `spoken`: what a screen reader says where the words alone are too short. */
export interface Choice<V> { value: V, says: string, spoken?: string, isFigure?: boolean, isOff?: boolean }
