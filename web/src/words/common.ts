/** Words that several screens share. Sentences about the job come from the core, not from here. */
export const words = {
  app: "Even Coil",
  steps: {
    plate: "Nameplate",
    leads: "Leads",
    joints: "Joints",
    bench: "Identify",
    replace: "Replace",
    size: "Size",
    starter: "Starter",
    drawings: "Drawings",
    check: "Dead check",
    rehearse: "Rehearse",
    "run-up": "Run-up",
    panel: "At the panel",
    trouble: "Trouble",
  } as Record<string, string>,
  states: {
    open: "Open",
    working: "Working",
    blocked: "Blocked",
    done: "Done",
    stale: "Stale",
  } as Record<string, string>,
  marks: { assumed: "ASSUMED", check_the_book: "CHECK THE BOOK", doubted: "IN DOUBT" } as Record<
    string,
    string
  >,
  kinds: { read: "read", assumed: "assumed", calculated: "calculated" } as Record<string, string>,
};

export const SAMPLE_PLATE =
  "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, 40 C AMB, 9 LEADS";
