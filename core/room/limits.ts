/** Figures that the document asks for without the geometry that they come from: its schema stands on every page. */

export const MOST_CORNERS = 60
export const MOST_PLACES = 400
/** What is added for bends, drops to the unit and what is cut off. Common practice, no source: a tenth. */
export const SLACK = 0.1
