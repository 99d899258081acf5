import {
  type PointerEvent,
  useCallback,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
} from "react";
import { diagramWords } from "../words/diagram";
import { Diagram, type DiagramProps } from "./Diagram";
import { boxOf, fitted, panned, type Size, type View, zoomed } from "./view";

const NEARER = 1.25;
const STEP_PX = 80;
const A_TAP_PX = 6;

interface ViewerProps extends Omit<DiagramProps, "leastWidth" | "box"> {
  /** Where the sheet was left, by its name; kept by whoever shows several. */
  places: Map<string, View>;
  name: string;
  /** Told when a finger or the mouse goes from one terminal to another. */
  onJoin?: ((start: string, end: string) => void) | undefined;
  /** Tall enough for the room that is left. */
  className?: string;
}

/** A sheet to be moved and brought closer by wheel, pinch, keys and buttons. */
export function Viewer({
  places,
  name,
  onJoin,
  className = "h-[max(26rem,calc(100dvh-18.5rem))]",
  ...diagram
}: ViewerProps) {
  const frame = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState<Size>({ width: 0, height: 0 });
  const [, redraw] = useState(0);
  const hands = useRef(new Map<number, { x: number; y: number }>());
  const moved = useRef(0);
  const from = useRef("");
  const { picture } = diagram;

  useLayoutEffect(() => {
    const element = frame.current;
    if (!element) return;
    const measure = () => setRoom({ width: element.clientWidth, height: element.clientHeight });
    measure();
    const watch = new ResizeObserver(measure);
    watch.observe(element);
    return () => watch.disconnect();
  }, []);

  const view = places.get(name) ?? fitted(picture, room);
  const show = useCallback(
    (next: View | null) => {
      if (next) places.set(name, next);
      else places.delete(name);
      redraw((now) => now + 1);
    },
    [places, name],
  );
  const now = useRef({ view, room, picture, show });
  now.current = { view, room, picture, show };
  const near = (by: number) => show(zoomed(view, by, { x: room.width / 2, y: room.height / 2 }));

  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const rolled = (event: WheelEvent) => {
      const { view: seen, room: space, picture: sheet, show: go } = now.current;
      event.preventDefault();
      if (event.shiftKey) return go(panned(seen, { x: -event.deltaY, y: 0 }, sheet, space));
      const box = element.getBoundingClientRect();
      const at = { x: event.clientX - box.left, y: event.clientY - box.top };
      go(zoomed(seen, Math.exp(-event.deltaY * 0.0015), at));
    };
    // React listens to wheels passively: only an own listener may keep the page still
    element.addEventListener("wheel", rolled, { passive: false });
    return () => element.removeEventListener("wheel", rolled);
  }, []);

  const terminalAt = (event: PointerEvent) =>
    document
      .elementFromPoint(event.clientX, event.clientY)
      ?.closest("[data-terminal]")
      ?.getAttribute("data-terminal") ?? "";
  const down = (event: PointerEvent) => {
    if (event.button !== 0) return;
    moved.current = 0;
    from.current = onJoin ? terminalAt(event) : "";
    hands.current.set(event.pointerId, { x: event.clientX, y: event.clientY });
  };
  const move = (event: PointerEvent) => {
    const before = hands.current.get(event.pointerId);
    if (!before) return;
    const here = { x: event.clientX, y: event.clientY };
    const by = { x: here.x - before.x, y: here.y - before.y };
    moved.current += Math.abs(by.x) + Math.abs(by.y);
    if (from.current || moved.current < A_TAP_PX) return;
    const others = [...hands.current].filter(([id]) => id !== event.pointerId);
    hands.current.set(event.pointerId, here);
    const other = others[0]?.[1];
    if (!other) return show(panned(view, by, picture, room));
    const apart = (one: { x: number; y: number }) => Math.hypot(one.x - other.x, one.y - other.y);
    const box = frame.current?.getBoundingClientRect();
    const middle = {
      x: (here.x + other.x) / 2 - (box?.left ?? 0),
      y: (here.y + other.y) / 2 - (box?.top ?? 0),
    };
    show(zoomed(view, apart(here) / Math.max(apart(before), 1), middle));
  };
  const up = (event: PointerEvent) => {
    hands.current.delete(event.pointerId);
    const to = from.current && moved.current >= A_TAP_PX ? terminalAt(event) : "";
    if (to && to !== from.current) onJoin?.(from.current, to);
    from.current = "";
  };
  const isFitted = !places.has(name);
  return (
    <div className="relative print:static">
      {/* biome-ignore lint/a11y/noStaticElementInteractions: the wires and terminals in it are the buttons; keys are those of the sheet's own buttons */}
      <div
        ref={frame}
        className={`${className} cursor-grab overflow-hidden print:h-auto`}
        style={{ touchAction: isFitted && !onJoin ? "pan-y" : "none" }}
        data-testid="viewer"
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        onPointerCancel={(event) => hands.current.delete(event.pointerId)}
        onPointerLeave={(event) => hands.current.delete(event.pointerId)}
        onClickCapture={(event) => {
          // the end of a move is no tap
          if (moved.current >= A_TAP_PX) {
            event.stopPropagation();
            moved.current = 0;
          }
        }}
        onKeyDown={(event) => {
          const ways: Record<string, [number, number]> = {
            ArrowLeft: [STEP_PX, 0],
            ArrowRight: [-STEP_PX, 0],
            ArrowUp: [0, STEP_PX],
            ArrowDown: [0, -STEP_PX],
          };
          const way = ways[event.key];
          if (!event.shiftKey || !way) return;
          event.preventDefault();
          show(panned(view, { x: way[0], y: way[1] }, picture, room));
        }}
      >
        {room.width > 0 && <Diagram {...diagram} box={boxOf(view, room)} />}
      </div>
      <div
        className="absolute right-2 bottom-2 flex gap-1 print:hidden"
        role="group"
        aria-label={diagramWords.closer}
      >
        <button
          type="button"
          className="control bg-sheet"
          aria-label={diagramWords.away}
          data-zoom="away"
          onClick={() => near(1 / NEARER)}
        >
          −
        </button>
        <button
          type="button"
          className="control bg-sheet"
          data-zoom="fit"
          onClick={() => show(null)}
        >
          {diagramWords.fit}
        </button>
        <button
          type="button"
          className="control bg-sheet"
          aria-label={diagramWords.near}
          data-zoom="near"
          onClick={() => near(NEARER)}
        >
          +
        </button>
      </div>
    </div>
  );
}
