import { Drawer, Words } from "../../components/inputs";
import type { Given } from "../../state/useJob";
import { jointsWords } from "../../words/joints";
import { inPlantNames } from "../../words/names";

const LANDINGS = ["L1", "L2", "L3", "G", "N"] as const;

/** The color found on each incoming conductor where it lands. */
export function Colors({
  joints,
  onColorsChange,
}: {
  joints: Given["joints"];
  onColorsChange: (colors: NonNullable<Given["joints"]["colors"]>) => void;
}) {
  const colors = joints.colors ?? [];
  return (
    <Drawer name={jointsWords.colorsFound} hint={jointsWords.landedLine}>
      <div className="grid grid-cols-2 gap-2 sm:grid-cols-3">
        {LANDINGS.map((line) => {
          const now = colors.find((item) => item.line === line);
          const put = (change: { color?: string; remarked?: string }) =>
            onColorsChange(
              [
                ...colors.filter((item) => item.line !== line),
                { line, color: now?.color ?? "", remarked: now?.remarked ?? "", ...change },
              ].filter((item) => item.color !== ""),
            );
          return (
            <div key={line}>
              <Words
                label={inPlantNames(line)}
                value={now?.color}
                placeholder={line === "G" ? "green" : ""}
                onValueChange={(color) => put({ color })}
              />
              {now && /^(white|gr[ae]y)/i.test(now.color ?? "") && line.startsWith("L") && (
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
