import { describe, expect, it } from "vitest";
import { found, termsOf } from "./terms";

const MARKDOWN = `# Nomenclature
| name | meaning | not |
|---|---|---|
| \`table_flc_a\` | full-load current of Tables 430.247 to 430.250 | nameplate current |
| \`lead\`, \`coil\` | numbered motor end | a contactor's coil |
`;

describe("the nomenclature", () => {
  it("is read row by row, without head and marks", () => {
    const terms = termsOf(MARKDOWN);
    expect(terms.map((one) => one.name)).toEqual(["table_flc_a", "lead, coil"]);
    expect(terms[0]?.not).toBe("nameplate current");
  });
  it("is searched in every column", () => {
    const terms = termsOf(MARKDOWN);
    expect(found(terms, "CONTACTOR").map((one) => one.name)).toEqual(["lead, coil"]);
    expect(found(terms, "turbine")).toEqual([]);
  });
});
