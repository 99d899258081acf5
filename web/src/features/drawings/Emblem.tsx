import { Diagram, type Picture } from "../../diagram/Diagram";

/** A device's symbol, small; its name stands beside it. */
export function Emblem({ picture }: { picture: Picture }) {
  return (
    <span aria-hidden="true" inert className="block w-12 shrink-0">
      <Diagram picture={picture} label="" />
    </span>
  );
}
