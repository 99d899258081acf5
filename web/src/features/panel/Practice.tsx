import { api, type Schemas, told } from "../../api/client";
import { useRoom } from "../../components/JobRoom";
import { useAsked } from "../../state/useAsked";
import { panelWords as w } from "../../words/panel";

/** How a unit is written on the screen. */
const UNITS: Record<string, string> = { ohm: w.ohms, Mohm: w.megohms };

type Shown = Schemas["PracticeReadingOut"];

/** What a practice instrument would show on the drawing: looked at, and kept nowhere. */
export function Practice({
  asked,
}: {
  asked: { kind: string; read_at?: string; stage?: string; temp_c?: number };
}) {
  const { place } = useRoom();
  const { shown, problem, ask } = useAsked<Shown>();
  const look = () =>
    ask(() =>
      told(
        api.GET("/api/w/{works}/m/{tag}/j/{number}/panel/practice", {
          params: {
            path: { works: place.works, tag: place.tag, number: place.number },
            query: asked,
          },
        }),
      ),
    );
  return (
    <div className="flex flex-wrap items-baseline gap-3 text-sm" data-testid="practice">
      <button type="button" className="ask" onClick={() => void look()}>
        {w.practiceKey}
      </button>
      <span aria-live="polite">
        {shown && (
          <>
            <span className="font-mono font-bold">
              {w.practiceShows(shown.value, UNITS[shown.unit] ?? shown.unit)}
            </span>{" "}
            <span className="text-soft">
              {shown.said} {w.practiceKept}
            </span>
          </>
        )}
        {problem && `${problem.detail} ${problem.hint}`}
      </span>
    </div>
  );
}
