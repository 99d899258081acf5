/** One term: its name, what it means, what it is not. */
export interface Term {
  name: string;
  meaning: string;
  not: string;
}

/** The rows of the nomenclature's tables; head and rule of a table are none. */
export function termsOf(markdown: string): readonly Term[] {
  return markdown
    .split("\n")
    .filter((line) => line.startsWith("|") && !/^\|\s*(name\s*\||-)/.test(line))
    .map((line) => {
      const [, name = "", meaning = "", not = ""] = line.split("|").map((cell) => cell.trim());
      return {
        name: name.replaceAll("`", ""),
        meaning: meaning.replaceAll("`", ""),
        not: not.replaceAll("`", ""),
      };
    })
    .filter((term) => term.name !== "");
}

/** Terms that hold what is typed, in any column. */
export function found(terms: readonly Term[], text: string): readonly Term[] {
  const asked = text.trim().toLowerCase();
  return terms.filter((term) =>
    `${term.name} ${term.meaning} ${term.not}`.toLowerCase().includes(asked),
  );
}
