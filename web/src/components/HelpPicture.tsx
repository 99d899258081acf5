/** One picture a screen, in a few strokes: what it shows. */
const STROKES: Record<string, string> = {
  motors:
    "M4 8H92M20 8v14M48 8v14M76 8v14M20 38a8 8 0 1 0 .1 0M48 38a8 8 0 1 0 .1 0M76 38a8 8 0 1 0 .1 0",
  plate: "M8 8h80v40H8zM16 20h40M16 30h56M16 40h30",
  leads: "M48 30L48 8M48 30L26 48M48 30L70 48M44 12h8M24 44l6 6M66 50l6-6",
  joints: "M8 28h26M62 28h26M34 18h28v20H34zM40 18v20M48 18v20M56 18v20",
  size: "M8 10h80M8 24h80M8 38h80M8 10v28M36 10v28M66 10v28M88 10v28",
  starter:
    "M24 6v12M48 6v12M72 6v12M18 20h12M42 20h12M66 20h12M18 28h12M42 28h12M66 28h12M24 30v20M48 30v20M72 30v20",
  drawings:
    "M10 6v44M86 6v44M10 18h24M38 10v16M44 10v16M48 18h16M72 18a8 8 0 1 1-.1 0M80 18h6M10 40h76",
  check: "M20 50L36 14M76 50L60 14M36 14h24M40 24h16",
  rehearse: "M30 40h36v10H30zM40 40V28h16v12M48 8v14M42 16l6 6 6-6",
  bench: "M14 50V22a8 8 0 0 1 16 0v28M36 50V22a8 8 0 0 1 16 0v28M58 50V22a8 8 0 0 1 16 0v28",
  panel: "M20 6h56v44H20zM42 28v-6a6 6 0 0 1 12 0v6M38 28h20v14H38z",
  "run-up": "M14 50V8M14 50H92M14 22c18 0 30-6 44-12c10-4 16 8 22 40M14 46c24-1 44-8 66-20",
  replace: "M24 28a14 14 0 1 0 .1 0M72 28a14 14 0 1 0 .1 0M40 28h14M50 22l6 6-6 6",
};

export function HelpPicture({ screen }: { screen: string }) {
  const path = STROKES[screen];
  if (!path) return null;
  return (
    <svg viewBox="0 0 96 56" className="h-24 w-40 shrink-0 text-plum" aria-hidden="true">
      <path
        d={path}
        fill="none"
        stroke="currentColor"
        strokeWidth="2.5"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </svg>
  );
}
