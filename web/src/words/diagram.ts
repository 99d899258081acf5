/** Words of the diagram screen. */
import type { Shown } from "./shown";

export const diagramWords = {
  operable: (label: Shown) => `${label}, operable`,
  liveV: (net: Shown) => `, live ${net} V`,
  dead: ", dead",
  closer: "Closer or further",
  near: "Closer (+)",
  away: "Further (-)",
  fit: "Fit",
  words: (title: Shown) => `${title} in words`,
};
