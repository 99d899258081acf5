import { Link } from "react-router";
import type { Figure, Step } from "../../api/client";
import { Stop } from "../../components/shapes";
import { sizeWords } from "../../words/size";
import { Slip, Withheld } from "./Slip";

const PLATE_FIELDS = new Set(["supply.text", "power_hp", "volts_v", "amps_a", "rated_load_amps_a"]);

/** The figures of a part: each with its slip, its refusal, or what it waits for. */
export function Figures({
  figures,
  steps,
  shown,
  base,
  onWhy,
}: {
  figures: readonly Figure[];
  steps: readonly Step[];
  shown: Step | undefined;
  base: string;
  onWhy: (id: string) => void;
}) {
  return (
    <div
      className="grid items-start gap-x-4 gap-y-3 sm:grid-cols-2 md:grid-cols-3"
      data-testid="figures"
    >
      {figures.map((figure) => {
        const step = steps.find((other) => other.id === figure.step);
        if (step) {
          return (
            <Slip
              key={figure.id}
              step={step}
              isLarge
              isOpen={shown?.id === step.id}
              onWhy={onWhy}
            />
          );
        }
        if (figure.refusal && figure.refusal.code !== "missing") {
          const isHold = figure.refusal.code === "not_in_table";
          return (
            <div key={figure.id} className="sm:col-span-2 md:col-span-3">
              <Stop strength={isHold ? "hold" : "stop"} title={figure.refusal.detail}>
                <p>{figure.refusal.hint}</p>
                <div className="flex flex-wrap gap-3">
                  {PLATE_FIELDS.has(figure.refusal.field) && (
                    <Link className="control" to={`${base}/plate`}>
                      {sizeWords.nameplate}
                    </Link>
                  )}
                </div>
              </Stop>
            </div>
          );
        }
        return (
          <Withheld
            key={figure.id}
            figure={figure}
            action={
              figure.refusal && PLATE_FIELDS.has(figure.refusal.field) ? (
                <Link className="ask" to={`${base}/plate`}>
                  {sizeWords.nameplate}
                </Link>
              ) : undefined
            }
          />
        );
      })}
    </div>
  );
}
