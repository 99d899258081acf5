import { Drawer, Words } from "../../components/inputs";
import type { Given } from "../../state/useJob";
import { jointsWords } from "../../words/joints";

const LANDINGS = ["L1", "L2", "L3", "G", "N"] as const;

/** The colour found on each incoming conductor where it lands. */
export function Colours({
  joints,
  onColoursChange,
}: {
  joints: Given["joints"];
  onColoursChange: (colours: NonNullable<Given["joints"]["colours"]>) => void;
}) {
  const colours = joints.colours ?? [];
  return (
    <Drawer name={jointsWords.colorsFound} hint={jointsWords.landedLine}>
      <div className="grid grid-cols-2 gap-2 sm:grid-cols-3">
        {LANDINGS.map((line) => {
          const now = colours.find((item) => item.line === line);
          const put = (change: { colour?: string; remarked?: string }) =>
            onColoursChange(
              [
                ...colours.filter((item) => item.line !== line),
                { line, colour: now?.colour ?? "", remarked: now?.remarked ?? "", ...change },
              ].filter((item) => item.colour !== ""),
            );
          return (
            <div key={line}>
              <Words
                label={line}
                value={now?.colour}
                placeholder={line === "G" ? "green" : ""}
                onValueChange={(colour) => put({ colour })}
              />
              {now && /^(white|gr[ae]y)/i.test(now.colour ?? "") && line.startsWith("L") && (
                <Words
                  label={jointsWords.reMarked}
                  value={now.remarked}
                  onValueChange={(remarked) => put({ remarked })}
                />
              )}
            </div>
          );
        })}
      </div>
    </Drawer>
  );
}
