// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import type { Schemas } from "../../api/client";
import { leadsWords } from "../../words/leads";
import { Answer } from "./Answer";
import { MakerDiagrams } from "./MakerDiagrams";

afterEach(cleanup);

const joint = (leads: string[], more: object = {}) => ({
  id: leads.join(""),
  leads,
  line: null,
  to_starter: "",
  conductors: leads.length,
  ...more,
});

const boxOf = (more: object) =>
  ({
    kind: "6",
    is_switched: false,
    derived: [],
    derived_free: [],
    derived_name: "Delta",
    derived_refusal: null,
    shared: [],
    states: [],
    asked: "run",
    marks: {},
    notes: [],
    tell: "",
    diagrams: [],
    is_disputed: false,
    followed: "",
    ...more,
  }) as unknown as Schemas["BoxOut"];

it("names each conductor to the starter by its lead, and offers no running connection", () => {
  const onTake = vi.fn();
  render(
    <Answer
      box={boxOf({
        is_switched: true,
        derived: [joint(["T4", "T7"]), joint(["T1"], { to_starter: "T1", conductors: 2 })],
      })}
      isTaken={false}
      onTake={onTake}
    />,
  );
  expect(screen.getByText(leadsWords.boxForStarter)).toBeTruthy();
  expect(screen.getByText(leadsWords.toStarter("T1"))).toBeTruthy();
  expect(screen.queryByText("Delta")).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: leadsWords.connectBoxLike }));
  expect(onTake).toHaveBeenCalledOnce();
});

it("shows the joints that every winding left has, with the question that is still open", () => {
  render(
    <Answer
      box={boxOf({
        kind: "",
        shared: [joint(["T4", "T7"])],
        derived_refusal: { code: "missing", detail: "9 leads can be wye or delta.", hint: "Ohms." },
      })}
      isTaken={false}
      onTake={vi.fn()}
    />,
  );
  expect(screen.getByTestId("shared").textContent).toContain("T4 T7");
  expect(screen.getByText(/can be wye or delta/)).toBeTruthy();
});

it("saves a diagram as printed before the winding is known", () => {
  const onLeadsChange = vi.fn();
  render(
    <MakerDiagrams
      place={{ works: "larkfall", tag: "IC-2", number: 1 }}
      box={boxOf({ kind: "" })}
      leads={{ maker: [] } as never}
      joints={[]}
      onLeadsChange={onLeadsChange}
    />,
  );
  const save = screen.getByRole("button", { name: leadsWords.saveDiagramPrinted });
  fireEvent.click(save);
  expect(onLeadsChange).not.toHaveBeenCalled();

  fireEvent.change(screen.getByLabelText(leadsWords.diagramAsPrinted), {
    target: { value: " 1-7 L1, 2-8 L2, 3-9 L3, 4-5-6 " },
  });
  fireEvent.click(save);
  const sent = onLeadsChange.mock.calls[0]?.[0];
  expect(sent.maker[0]).toMatchObject({ text: "1-7 L1, 2-8 L2, 3-9 L3, 4-5-6", joints: [] });
});
