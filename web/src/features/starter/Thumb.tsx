import { Diagram } from "../../diagram/Diagram";
import { usePicture } from "../../diagram/usePicture";

/** A circuit of the catalogue, small: its power diagram and its ladder, as they are drawn. */
export function Thumb({
  works,
  circuit,
  style,
}: {
  works: string;
  circuit: string;
  style: "nema" | "iec";
}) {
  const { data } = usePicture(works, circuit, style);
  return (
    <span
      className="thumb flex h-24 w-56 gap-2 max-md:w-28"
      aria-hidden="true"
      inert
      data-testid={`picture-${circuit}`}
    >
      {data && (
        <>
          <span className="block min-w-0 flex-1">
            <Diagram picture={data.power} label="" box={whole(data.power)} />
          </span>
          {data.ladder.shapes.length > 0 && (
            <span className="block min-w-0 flex-1 max-md:hidden">
              <Diagram picture={data.ladder} label="" box={whole(data.ladder)} />
            </span>
          )}
        </>
      )}
    </span>
  );
}

const whole = (picture: { width: number; height: number }) =>
  `0 0 ${picture.width} ${picture.height}`;
