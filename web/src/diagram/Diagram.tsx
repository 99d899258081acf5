import { memo } from "react";
import type { Schemas } from "../api/client";
import { diagramWords } from "../words/diagram";

export type Picture = Schemas["PictureOut"];
type Shape = Schemas["ShapeOut"];

/** What a live drawing shows: which nets have volts, which links conduct, what works. */
export interface Live {
  /** Volts to ground by net id. */
  nets: Readonly<Record<string, number>>;
  /** Ids of the nets whose volts can hurt, as the core says. */
  hot: ReadonlySet<string>;
  closed: ReadonlySet<string>;
  words: Readonly<Record<string, string>>;
  /** The device that did it, when a hazard holds the picture. */
  culprit?: string | undefined;
}

export interface DiagramProps {
  picture: Picture;
  label: string;
  /** Wire numbers by net id: labels only. */
  numbers?: Readonly<Record<string, string>> | undefined;
  /** The id of the net that is lit in all views; the rest fades. */
  picked?: string | null;
  onPick?: (net: string | null) => void;
  live?: Live | undefined;
  /** Devices that are lit beside the net. */
  lit?: ReadonlySet<string> | undefined;
  /** The terminal that is chosen on a board, and what a tap on another one does. */
  terminal?: string | undefined;
  onTerminal?: ((terminal: string) => void) | undefined;
  terminalName?: ((terminal: string) => string) | undefined;
  /** Least width in pixels: below it the drawing is moved, not shrunk. */
  leastWidth?: number;
  /** The part that is seen, when a viewer moves it; the drawing then fills its room. */
  box?: string | undefined;
}

const WIDTH = { thin: 1, normal: 1.7, heavy: 3.2 };
const TEXT: Record<string, string> = {
  tag: "font-mono text-[13px] font-semibold",
  number: "font-mono text-[12px] font-semibold",
  ends: "font-mono text-[10px]",
  lead: "font-mono text-[10px]",
  row: "font-mono text-[12px]",
  use: "font-mono text-[11px]",
};
const WORKING = new Set(["1", "on", "over", "fwd", "rev", "plug", "sp", "hum", "brake", "hold"]);

function points(shape: Shape): string {
  const found: string[] = [];
  for (let place = 0; place < shape.p.length; place += 2) {
    found.push(`${shape.p[place]},${shape.p[place + 1]}`);
  }
  return found.join(" ");
}

function Drawn({ shape, isHot }: { shape: Shape; isHot: boolean }) {
  const [x = 0, y = 0, x2 = 0, y2 = 0] = shape.p;
  const width = WIDTH[shape.w ?? "normal"] + (isHot ? 1.6 : 0);
  if (shape.k === "text") {
    return (
      <text x={x} y={y} textAnchor={shape.a} className={TEXT[shape.role ?? ""] ?? "text-[11px]"}>
        {shape.t}
      </text>
    );
  }
  if (shape.k === "dot") return <circle cx={x} cy={y} r={shape.r} className="dot" />;
  if (shape.k === "circle") return <circle cx={x} cy={y} r={shape.r} strokeWidth={width} />;
  if (shape.k === "rect") {
    return (
      <rect
        x={Math.min(x, x2)}
        y={Math.min(y, y2)}
        width={Math.abs(x2 - x)}
        height={Math.abs(y2 - y)}
        strokeWidth={width}
      />
    );
  }
  return shape.c ? (
    <polygon points={points(shape)} strokeWidth={width} />
  ) : (
    <polyline points={points(shape)} strokeWidth={width} />
  );
}

/** A terminal to be tapped: larger than it is drawn. */
function Terminal({
  touch,
  name,
  isChosen,
  onTap,
}: {
  touch: Schemas["TouchOut"];
  name: string;
  isChosen: boolean;
  onTap: (terminal: string) => void;
}) {
  const { x, y, terminal } = touch;
  const tap = () => onTap(terminal);
  return (
    <g
      className="terminal cursor-pointer"
      role="button"
      tabIndex={0}
      aria-pressed={isChosen}
      aria-label={name}
      data-terminal={terminal}
      onClick={tap}
      onKeyDown={(event) => {
        if (event.key === "Enter" || event.key === " ") {
          event.preventDefault();
          tap();
        }
      }}
    >
      <circle cx={x} cy={y} r={13} className="catch" />
      <circle cx={x} cy={y} r={isChosen ? 7 : 4} />
    </g>
  );
}

/** The core's geometry, drawn: nets can be tapped, lit, and shown live. */
export const Diagram = memo(function Diagram({
  picture,
  label,
  numbers,
  picked = null,
  onPick,
  live,
  lit,
  terminal,
  onTerminal,
  terminalName,
  leastWidth,
  box,
}: DiagramProps) {
  const nets = new Map<string, Shape[]>();
  const parts = new Map<string, Shape[]>();
  for (const shape of picture.shapes) {
    const [groups, name] =
      shape.net && !shape.link ? [nets, shape.net] : [parts, shape.link || shape.device || ""];
    const kept = groups.get(name);
    if (kept) kept.push(shape);
    else groups.set(name, [shape]);
  }
  const volts = (net: string) => live?.nets[net] ?? 0;
  return (
    <section
      className={box ? "h-full" : "overflow-x-auto"}
      data-testid="diagram"
      aria-label={diagramWords.operable(label)}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: a drawing wider than the screen is moved by arrow keys
      tabIndex={0}
    >
      <svg
        viewBox={box ?? `0 0 ${picture.width} ${picture.height}`}
        className={`diagram block w-full ${box ? "h-full" : "h-auto"}`}
        style={box ? undefined : { minWidth: leastWidth, maxWidth: picture.width * 1.15 }}
        data-picked={picked !== null || lit !== undefined}
        data-live={live !== undefined}
        role="group"
        aria-label={label}
      >
        {[...nets].map(([net, shapes]) => {
          const isHot = live?.hot.has(net) ?? false;
          const name = `wire ${numbers?.[net] ?? net}${live ? (isHot ? diagramWords.liveV(volts(net).toFixed(0)) : diagramWords.dead) : ""}`;
          const draw = (shape: Shape, place: number) => (
            <Drawn key={place} shape={shape} isHot={isHot || picked === net} />
          );
          const state = { "data-net": net, "data-hot": isHot, "data-lit": picked === net };
          const texts = (
            <g className="net" {...state}>
              {shapes.filter((shape) => shape.k === "text").map(draw)}
            </g>
          );
          const lines = shapes.filter((shape) => shape.k !== "text").map(draw);
          if (!onPick) {
            return (
              <g key={net}>
                <g className="net" {...state}>
                  {lines}
                </g>
                {texts}
              </g>
            );
          }
          return (
            <g key={net}>
              <g
                className="net cursor-pointer"
                {...state}
                role="button"
                tabIndex={0}
                aria-pressed={picked === net}
                aria-label={name}
                onClick={() => onPick(picked === net ? null : net)}
                onKeyDown={(event) => {
                  if (event.key === "Enter" || event.key === " ") {
                    event.preventDefault();
                    onPick(picked === net ? null : net);
                  }
                }}
              >
                {shapes
                  .filter((shape) => shape.k === "line" || shape.k === "path")
                  .map((shape, place) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: shapes of one net have no other name
                    <polyline key={place} points={points(shape)} className="catch" />
                  ))}
                {lines}
              </g>
              {texts}
            </g>
          );
        })}
        {[...parts].map(([name, shapes]) => {
          const device = shapes[0]?.device ?? "";
          const word = live?.words[device] ?? "";
          const isOutput = /:(A1-A2|B1-B2|X1-X2|T-X2|H1-H2)$/.test(name);
          const isOn = live !== undefined && isOutput && WORKING.has(word);
          return (
            <g
              key={name}
              className="part"
              data-link={name}
              data-lit={lit?.has(device) ?? false}
              data-closed={live?.closed.has(name) ?? false}
              data-on={isOn}
              data-culprit={live?.culprit !== undefined && live.culprit === device}
            >
              {shapes.map((shape, place) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: shapes of one part have no other name
                <Drawn key={place} shape={shape} isHot={false} />
              ))}
            </g>
          );
        })}
        {onTerminal &&
          picture.touches.map((touch) => (
            <Terminal
              key={touch.terminal}
              touch={touch}
              name={terminalName?.(touch.terminal) ?? touch.terminal}
              isChosen={terminal === touch.terminal}
              onTap={onTerminal}
            />
          ))}
      </svg>
    </section>
  );
});

/** The drawing in words, one line a rung or a device, for reading without sight. */
export function Twin({ picture, title }: { picture: Picture; title: string }) {
  return (
    <details>
      <summary className="ask">{diagramWords.words(title)}</summary>
      <ul className="space-y-1 font-mono text-sm">
        {picture.twin.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </details>
  );
}
