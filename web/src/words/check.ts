/** Words of the check screen. */
import { counted, type Shown } from "./shown";

export const checkWords = {
  nothingOperated: "nothing operated",
  whatWouldExplain: "What would explain this reading",
  singleFaultsExplain: "Single faults that explain the most readings, most common first.",
  explains: (explains: Shown, ofSaid: Shown) => `explains ${explains} of ${ofSaid}`,
  rehearse: "To Rehearse",
  drawings: "To Drawings",
  thereNoCircuit: "There is no circuit yet.",
  chooseStarter: "Choose a starter",
  firstLockOut: "First lock out, try to start, and verify dead",
  takeApart: (apart: Shown) =>
    `Before the first reading: ${apart}. Otherwise a transformer or a winding makes right and wrong read alike. `,
  confirmedWires: (confirmed: Shown, refuted: Shown) =>
    `The readings so far confirm ${counted(confirmed, "wire")} and refute ${refuted}.`,
  lookAt: "Look at these, no reading shows them",
  notShown: (shown: Shown, mistakes: Shown) =>
    `${shown} of ${counted(mistakes, "single mistake")} change a reading`,
  lineSideMain: "The line side of the main disconnect stays live. No probe on",
  countedChecksReading: (checks: Shown, states: Shown) =>
    `${counted(checks, "reading")} check every wire; ${counted(states, "position")} of the operators tried. Near zero is 1 Ω or less with the meter leads subtracted, open is above 1 MΩ. Coil resistances are estimates: within a factor of five counts as drawn. Thermistors only with a meter of 2.5 V or less. Enter the measured resistance of your own coil on Drawings, under Edit wiring.`,
  notDetectedAny: (untold: Shown) => ` Not detected by any reading: ${untold}.`,
  to: (startSaid: Shown, endSaid: Shown) => `${startSaid} to ${endSaid}`,
  shouldRead: "should read",
  alsoRulesOut: "also rules out exchanged or bridged contacts",
  notDrawn: (x: Shown) => `Not as drawn: ${x}`,
  meterReading: (name: Shown) => `Meter reading at ${name}`,
  nearZero: "near zero",
  reads: "reads",
  open: "open",
  drawn: "as drawn",
  checksCountWire: (count: number) => `checks ${count} ${count === 1 ? "wire" : "wires"}`,
  and: " and ",
};
