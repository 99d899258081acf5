import { useRef } from "react";
import { plateWords } from "../../words/plate";
import { type Corners, led } from "./corners";

const STEP = 0.01;

/** The photo with four handles on the corners of the plate: dragged, or moved by arrow keys. */
export function CornerPicture({
  url,
  corners,
  onChange,
}: {
  url: string;
  corners: Corners;
  onChange: (corners: Corners) => void;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const at = (corner: number) => ({ x: corners[2 * corner] ?? 0, y: corners[2 * corner + 1] ?? 0 });
  const points = [0, 1, 2, 3].map((corner) => `${at(corner).x * 100},${at(corner).y * 100}`);
  return (
    <div ref={frame} className="relative touch-none select-none" data-testid="corners">
      <img src={url} alt={plateWords.photo(plateWords.nameplate)} className="block w-full" />
      <svg
        viewBox="0 0 100 100"
        preserveAspectRatio="none"
        className="pointer-events-none absolute inset-0 size-full"
        aria-hidden="true"
      >
        <polygon
          points={points.join(" ")}
          fill="none"
          stroke="var(--plum)"
          strokeWidth="2.5"
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      {plateWords.cornerNames.map((name, corner) => (
        <button
          key={name}
          type="button"
          aria-label={name}
          className="absolute size-11 -translate-1/2 cursor-grab rounded-full border-4 border-plum bg-sheet/60"
          style={{ left: `${at(corner).x * 100}%`, top: `${at(corner).y * 100}%` }}
          onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
          onPointerMove={(event) => {
            const box = frame.current?.getBoundingClientRect();
            if (!box || !event.currentTarget.hasPointerCapture(event.pointerId)) return;
            const to = {
              x: (event.clientX - box.left) / box.width,
              y: (event.clientY - box.top) / box.height,
            };
            onChange(led(corners, corner, to));
          }}
          onKeyDown={(event) => {
            const ways: Record<string, [number, number]> = {
              ArrowLeft: [-STEP, 0],
              ArrowRight: [STEP, 0],
              ArrowUp: [0, -STEP],
              ArrowDown: [0, STEP],
            };
            const way = ways[event.key];
            if (!way) return;
            event.preventDefault();
            const { x, y } = at(corner);
            onChange(led(corners, corner, { x: x + way[0], y: y + way[1] }));
          }}
        />
      ))}
    </div>
  );
}
