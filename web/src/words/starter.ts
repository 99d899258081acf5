/** Words of the starter screen. */
import { named } from "./names";
import type { Shown } from "./shown";

export const starterWords = named({
  acceptedBySigner:
    "An electrician or a reviewer accepts it, in their own name and with a reason; or choose a circuit that does not do it.",
  chooseFirst: "choose first",
  needsLeads: (or: Shown) => `Needs ${or} leads.`,
  whyAcceptableHere: "Why it is acceptable here: who can reach it, what guards it",
  enterReasonFirst: "Enter a reason first; it prints with your name.",
  accept: "Accept",
  cannotAcceptedSeparate: "This cannot be accepted. A separate reset prevents it.",
  drawReset: "Draw it with a reset",
  withdraw: "Withdraw",
  to: (unit: Shown, least: Shown, most: Shown) => `${unit} (${least} to ${most})`,
  howBuilt: "How it is built",
  tagsDrawing: "Tags on the drawing",
  symbols: "Symbols",
  use: "Use for:",
  not: "Not for:",
  mustInclude: "Must include:",
  nextFunction: "Next function",
  previous: "Previous",
  choose: (title: Shown) => `Choose ${title}`,
  drawings: "To Drawings",
  rehearse: "Rehearse",
  whatMustDo: "What must it do?",
  howDoesLoad: "How does the load start?",
  notKnown: "not known",
  starters: "Starters",
  chosen: "chosen",
  or: " or ",
  can: "can",
  cannot: "cannot",
  empty: "empty",
  loaded: "loaded",
});
