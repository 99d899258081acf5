import { afterEach, describe, expect, it } from "vitest";
import { inPlantNames, named, setNames, USUAL } from "./names";

afterEach(() => setNames(USUAL));

describe("the plant's names", () => {
  it("are American trade words and L1 to L3 unless the plant has its own", () => {
    expect(inPlantNames("Wye on L1")).toBe("Wye on L1");
  });

  it("say star and R, Y, B, and leave terminals of devices alone", () => {
    setNames({ terms: "iec", lines: "R-Y-B" });
    expect(inPlantNames("Wye on L1, wye-delta on L3-L2")).toBe("Star on R, star-delta on B-Y");
    expect(inPlantNames("KM1.1L1, PM1.L1 and 3L2 stay")).toBe("KM1.1L1, PM1.L1 and 3L2 stay");
  });

  it("are read anew each time", () => {
    const words = named({ lost: "L2 lost" });
    expect(words.lost).toBe("L2 lost");
    setNames({ terms: "american", lines: "R-Y-B" });
    expect(words.lost).toBe("Y lost");
  });
});
