import { pinNames } from '@/core/circuit';
import { isElectrolytic } from '@/core/part';
import type { Part } from '@/core/part';
import type { SymbolBox } from '@/core/schematic';

/** Draws a part's own sign in its box, in the manner of IEC 60617. Strokes inherit their look. */
export function PartSymbol({ part, box }: { part: Part; box: SymbolBox }) {
  const { width: w, height: h } = box;
  const m = h / 2;
  const leads = (from: number, to: number) => <path d={`M0 ${m}H${from}M${to} ${m}H${w}`} />;
  // Polar signs are drawn from pin 1 at the west; turned where pin 1 stands east.
  const turned = box.ports[0]?.pin === 1 && part.nets.length === 2 ? `rotate(180 ${w / 2} ${m})` : undefined;
  switch (part.kind) {
    case 'resistor':
      return (
        <g>
          {leads(14, w - 14)}
          <rect x={14} y={m - 6} width={w - 28} height={12} />
        </g>
      );
    case 'capacitor':
      return (
        <g transform={turned}>
          {leads(26, 34)}
          <path d={`M26 ${m - 11}V${m + 11}`} />
          {isElectrolytic(part) ? (
            <rect x={33} y={m - 11} width={4} height={22} fill="currentColor" />
          ) : (
            <path d={`M34 ${m - 11}V${m + 11}`} />
          )}
          {isElectrolytic(part) && <path d={`M18 ${m - 9}h6M21 ${m - 12}v6`} />}
        </g>
      );
    case 'inductor':
      return (
        <g>
          {leads(12, w - 12)}
          <path d={`M12 ${m}a6 6 0 0 1 12 0a6 6 0 0 1 12 0a6 6 0 0 1 12 0`} />
        </g>
      );
    case 'diode': {
      const led = part.ref.toUpperCase().includes('LED');
      return (
        <g transform={turned}>
          {leads(22, 38)}
          <path d={`M22 ${m - 9}V${m + 9}L38 ${m}Z`} />
          <path d={`M38 ${m - 9}V${m + 9}`} />
          {led && <path d={`M40 ${m - 10}l7 -6M44 ${m - 7}l7 -6`} />}
        </g>
      );
    }
    case 'fuse':
      return (
        <g>
          <path d={`M0 ${m}H${w}`} />
          <rect x={12} y={m - 6} width={w - 24} height={12} />
        </g>
      );
    case 'ntc':
    case 'mov':
      return (
        <g>
          {leads(14, w - 14)}
          <rect x={14} y={m - 6} width={w - 28} height={12} />
          <path d={`M10 ${m + 11}h6L${w - 14} ${m - 11}`} />
        </g>
      );
    case 'switch':
      return <path d={`M0 ${m}H18M18 ${m}L${w - 20} ${m - 9}M${w - 18} ${m}H${w}`} />;
    case 'lamp':
      return (
        <g>
          {leads(20, 40)}
          <circle cx={30} cy={m} r={10} />
          <path d={`M23 ${m - 7}l14 14M37 ${m - 7}l-14 14`} />
        </g>
      );
    default:
      return <Box part={part} box={box} />;
  }
}

/** A part of more than two pins: a box with its pins named inside. */
function Box({ part, box }: { part: Part; box: SymbolBox }) {
  const short: Readonly<Record<string, string>> = {
    mosfet: 'FET',
    bjt: 'BJT',
    bridge: '',
    opto: 'opto',
    'shunt-reference': 'ref.',
  };
  const names = pinNames(part);
  return (
    <g>
      <rect x={0} y={0} width={box.width} height={box.height} rx={3} />
      {box.ports.map((p) => (
        <text
          key={p.id}
          x={p.side === 'west' ? 4 : box.width - 4}
          y={p.y + 3.5}
          textAnchor={p.side === 'west' ? 'start' : 'end'}
          className="figure"
          fontSize={9}
          stroke="none"
          fill="currentColor"
        >
          {names[p.pin]}
        </text>
      ))}
      <text x={box.width / 2} y={box.height - 4} textAnchor="middle" fontSize={9} stroke="none" fill="var(--faint)">
        {short[part.kind] ?? ''}
      </text>
    </g>
  );
}
