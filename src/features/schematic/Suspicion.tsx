import type { Drawing } from '@/core/drawing';

/** The glow behind what is suspected: wider and brighter the more it is. */
export function Suspicion({ drawing, byPart }: { drawing: Drawing; byPart: ReadonlyMap<string, number> | undefined }) {
  return (
    <>
      <defs>
        <radialGradient id="suspicion">
          <stop offset="0%" stopColor="rgb(var(--glow))" stopOpacity="0.85" />
          <stop offset="100%" stopColor="rgb(var(--glow))" stopOpacity="0" />
        </radialGradient>
      </defs>
      {drawing.symbols.map((s) => {
        const p = Math.max(...s.refs.map((r) => byPart?.get(r) ?? 0));
        if (p < 0.02) return null;
        return (
          <ellipse
            key={s.refs[0]}
            cx={s.x + s.width / 2}
            cy={s.y + s.height / 2}
            rx={s.width / 2 + 14 + 26 * p}
            ry={s.height / 2 + 14 + 26 * p}
            fill="url(#suspicion)"
            opacity={0.3 + 0.7 * p}
          />
        );
      })}
    </>
  );
}
