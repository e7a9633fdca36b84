import { inductorsAt, islandOf, transformerOf } from './anatomy';
import { isDivided, isRail, railCapacitors } from './rails';
import type { Anatomy } from './anatomy';
import { diodesAt } from './cells';
import type { PowerSwitches } from './cells';
import type { Converter } from './converter';
import { diodeClass, farEnd } from './partGraph';
import type { Branch } from './partGraph';
import { railVolts } from './icSupply';
import type { AmplifierLoop } from './icClasses';
import type { Secondary } from './secondaries';

export const PIN_ROLES = [
  'VCC',
  'GND',
  'GATE',
  'DRAIN',
  'SOURCE',
  'CS',
  'FB',
  'COMP',
  'RT',
  'HV',
  'EN',
  'SW',
  'BST',
  'VIN',
  'VOUT',
  'NC',
  'UNKNOWN',
] as const;
export type PinRole = (typeof PIN_ROLES)[number];

/** One reason for a role: how well it speaks for it, from 0 to 1. */
export interface RoleScore {
  readonly role: PinRole;
  readonly score: number;
  readonly why: string;
}

/** What the rules look at. */
export interface PinScene {
  readonly anatomy: Anatomy;
  readonly switches: PowerSwitches;
  readonly converters: readonly Converter[];
  readonly secondaries: readonly Secondary[];
  readonly ic: Branch;
  /** Nets that a GATE pin drives, of power transistors and drive transformers. */
  readonly gateNets: ReadonlySet<string>;
  readonly outputs: ReadonlySet<string>;
  readonly supplies: ReadonlySet<string>;
  readonly nodes: ReadonlySet<string>;
  readonly loops: readonly AmplifierLoop[];
}

type Rule = (scene: PinScene, net: string) => readonly RoleScore[];

/** A rail from this printed voltage on is high voltage: what hangs on it is a start-up source or a drain. */
const HIGH_VOLTS = 160;

const say = (role: PinRole, score: number, why: string): RoleScore => ({ role, score, why });

const free: Rule = ({ anatomy: a, ic }, net) => {
  const others = a.graph.on(net).filter((p) => p.branch !== ic);
  const own = a.graph.on(net).length - others.length;
  return others.length === 0 && own === 1 ? [say('NC', 1, 'nothing is connected')] : [];
};

const ground: Rule = ({ anatomy: a, ic }, net) => {
  const island = islandOf(a, net);
  if (!island?.references.includes(net)) return [];
  const main = island.references[0]!;
  const beside = net !== main && ic.nets.includes(main);
  return beside
    ? [say('CS', 0.8, 'on a shunt beside its own ground')]
    : [say('GND', 1, 'on the reference net of its island')];
};

const switching: Rule = ({ anatomy: a, converters, ic, nodes }, net) => {
  const floats = !ic.nets.some((n) => a.grounds.has(n)) && !converters.some((c) => c.ics.includes(ic));
  if (floats && nodes.has(net)) return [say('GND', 0.96, 'on the node that the whole part rides on')];
  for (const c of converters) {
    if (!c.ics.includes(ic)) continue;
    const high = isHigh(a, c.supply);
    const below = c.topology === 'buck' || c.topology === 'buck-boost' || c.topology === 'synchronous-buck';
    if (c.nodes.includes(net)) {
      if (c.core && !below) return [say('DRAIN', 1, 'straight on the winding')];
      return below && high
        ? [say('SOURCE', 1, 'straight on the choke, below the high-voltage rail')]
        : [say('SW', 1, 'straight on the choke')];
    }
    if (below && net === c.supply)
      return [
        high
          ? say('DRAIN', 0.95, 'on the high-voltage rail, with its switch inside')
          : say('VIN', 0.95, 'on the input rail'),
      ];
  }
  return nodes.has(net) ? [say('SW', 0.9, 'on a switching node')] : [];
};

function isHigh(a: Anatomy, net: string): boolean {
  return railVolts(a, net) >= HIGH_VOLTS || a.lines.some((l) => l.rectifier.plus === net);
}

const gate: Rule = ({ gateNets }, net) =>
  gateNets.has(net) ? [say('GATE', 0.95, 'drives the gate of a power switch')] : [];

const bootstrap: Rule = ({ anatomy: a, ic, nodes }, net) => {
  const floating = !ic.nets.some((n) => a.grounds.has(n));
  const lifted = a.graph.on(net, 'capacitor').some((p) => nodes.has(farEnd(p.branch, net)));
  if (!lifted) return [];
  if (floating) return [say('VCC', 0.92, 'held against the node that the whole part rides on')];
  return [
    say('BST', diodesAt(a, net, 'cathode').length > 0 ? 0.97 : 0.8, 'a capacitor to the switching node lifts it'),
  ];
};

const sense: Rule = ({ anatomy: a }, net) => {
  if (a.currents.has(net)) return [say('CS', 0.95, 'on the high side of a shunt')];
  const near = a.graph
    .on(net, 'resistor')
    .some((p) => p.branch.value! > 5 && p.branch.value! <= 22e3 && a.currents.has(farEnd(p.branch, net)));
  if (near) return [say('CS', 0.92, 'a filter resistor leads to a shunt')];
  const burden = a.graph
    .on(net, 'resistor')
    .some((p) => p.branch.value! <= 200 && a.grounds.has(farEnd(p.branch, net)));
  const coil = a.graph.on(net, 'inductor', 'diode').length > 0;
  return burden && coil && !isRail(a, net)
    ? [say('CS', 0.8, "a burden resistor turns a winding's current into volts")]
    : [];
};

const errorAmplifier: Rule = ({ anatomy: a, loops }, net) => {
  const sensed = a.graph.on(net, 'resistor').some((p) => a.currents.has(farEnd(p.branch, net)));
  if (loops.some((l) => l.input === net))
    return [say('FB', sensed ? 0.5 : 0.95, 'the input of an amplifier that its output is fed back to')];
  return loops.some((l) => l.output === net) ? [say('COMP', 0.95, 'the output of an amplifier, fed back')] : [];
};

const feedback: Rule = (scene, net) => {
  const { anatomy: a, outputs, loops } = scene;
  const found: RoleScore[] = [];
  // On a supply the opto's collector only takes its current from there.
  const supplied =
    railCapacitors(a, net).length > 0 && isRail(a, net) && a.graph.on(net, 'opto').every((p) => p.pin === 2);
  if (!supplied && a.graph.on(net, 'opto').some((p) => p.pin >= 2)) {
    // Where an amplifier of its own regulates, an opto at another pin stops it.
    const apart = loops.length > 0 && !loops.some((l) => l.input === net || l.output === net);
    const optos = a.graph.on(net, 'opto').filter((p) => p.pin >= 2);
    const regulates = Math.max(...optos.map((p) => regulation(a, p.branch)));
    found.push(say('FB', apart ? 0.6 : regulates, "the opto's transistor is here"));
    if (regulates < 0.5) found.push(say('UNKNOWN', 0.5, 'an opto that nothing regulates: it tells something'));
    if (apart) found.push(say('EN', 0.86, 'an opto that the loop does not need: it stops the controller'));
  }
  const resistors = a.graph.on(net, 'resistor').map((p) => p.branch);
  const lower = resistors.some((r) => a.grounds.has(farEnd(r, net)) || scene.nodes.has(farEnd(r, net)));
  for (const top of resistors.flatMap((r) => chainEnds(a, r, net))) {
    const coil = inductorsAt(a, top).some((w) => transformerOf(a, w) !== undefined);
    const winding = coil && !a.grounds.has(top) && !scene.nodes.has(top) && !isRail(a, top);
    if (winding) found.push(say('FB', lower ? 0.95 : 0.6, 'a divider from a winding'));
    else if (outputs.has(top) || reachesOutput(scene, top))
      found.push(
        drivesNothing(scene)
          ? say('UNKNOWN', 0.6, 'measures an output for one that drives nothing')
          : say('FB', lower ? 0.94 : 0.5, 'a divider from an output rail'),
      );
  }
  if (outputs.has(net) && scene.converters.some((c) => c.ics.includes(scene.ic) && c.outputs.has(net)))
    found.push(say('FB', 0.6, 'on the output that its switch makes'));
  return found;
};

/** Whether an IC has no part in driving the switches while another one has. */
function drivesNothing({ anatomy: a, ic, gateNets, nodes, converters, loops }: PinScene): boolean {
  const drives = (b: Branch): boolean =>
    b.nets.some((n) => gateNets.has(n) || nodes.has(n)) || converters.some((c) => c.ics.includes(b));
  return loops.length === 0 && !drives(ic) && a.graph.all('ic').some((b) => b !== ic && drives(b));
}

/** Where a resistor leads from a net, through more resistors where nothing else than a capacitor stands between them. */
function chainEnds(a: Anatomy, first: Branch, net: string): readonly string[] {
  const far = farEnd(first, net);
  const others = a.graph.touching(far).filter((b) => b !== first);
  const chained =
    others.length > 0 && others.every((b) => b.kind === 'resistor' || b.kind === 'capacitor') && !isRail(a, far);
  if (!chained || a.grounds.has(far)) return [far];
  const next = others.filter((b) => b.kind === 'resistor' && !b.nets.includes(net));
  return next.length === 0 ? [far] : next.map((b) => farEnd(b, far));
}

/** How much an opto's LED side looks like a loop: something there compares, or nothing of it is traced yet. */
function regulation(a: Anatomy, opto: Branch): number {
  const seen = new Set(opto.nets.slice(0, 2));
  const queue = [...seen].map((net) => ({ net, steps: 0 }));
  let parts = 0;
  for (let item = queue.shift(); item !== undefined; item = queue.shift()) {
    for (const { branch } of a.graph.on(item.net)) {
      if (branch === opto) continue;
      parts++;
      if (['shunt-reference', 'ic', 'bjt', 'mosfet'].includes(branch.kind)) return 0.96;
      if (branch.kind === 'diode' && diodeClass(a.board, branch) === 'zener') return 0.96;
      if (!['resistor', 'diode'].includes(branch.kind) || item.steps > 1) continue;
      const far = farEnd(branch, item.net);
      if (seen.has(far) || a.grounds.has(far) || isRail(a, far)) continue;
      seen.add(far);
      queue.push({ net: far, steps: item.steps + 1 });
    }
  }
  return parts <= 1 ? 0.75 : 0.45;
}

/** A rail that only a diode separates from an output: it follows the output's volts. */
function reachesOutput({ anatomy: a, outputs }: PinScene, top: string): boolean {
  return diodesAt(a, top, 'cathode').some((d) => outputs.has(d.nets[0]!));
}

const compensation: Rule = (scene, net) => {
  const { anatomy: a, ic } = scene;
  const pins = a.graph.on(net).filter((p) => p.branch !== ic);
  const found: RoleScore[] = [];
  const rc = pins.some(({ branch }) => {
    if (branch.kind !== 'resistor' && branch.kind !== 'capacitor') return false;
    const mid = farEnd(branch, net);
    const onward = a.graph.on(mid).filter((p) => p.branch !== branch);
    const partner = onward[0]?.branch;
    if (onward.length !== 1 || !partner || partner.kind === branch.kind) return false;
    if (partner.kind !== 'resistor' && partner.kind !== 'capacitor') return false;
    const end = farEnd(partner, mid);
    return a.grounds.has(end) || ic.nets.includes(end);
  });
  if (rc) found.push(say('COMP', 0.93, 'a resistor and a capacitor in series: loop compensation'));
  const onlyGround =
    pins.length > 0 && pins.every((p) => p.branch.nets.length === 2 && a.grounds.has(farEnd(p.branch, net)));
  if (!onlyGround) return found;
  const [resistor, capacitor] = (['resistor', 'capacitor'] as const).map(
    (k) => pins.find((p) => p.branch.kind === k)?.branch,
  );
  if (pins.some((p) => p.branch.kind === 'ntc')) return [say('EN', 0.6, 'a thermistor to ground')];
  if (resistor && resistor.value! >= 500)
    found.push(say('RT', capacitor ? 0.8 : 0.9, 'only a resistor to ground: it sets the timing'));
  else if (capacitor) {
    const farads = capacitor.value!;
    if (farads <= 4.7e-9)
      found.push(
        say('RT', 0.5, 'only a small capacitor to ground: timing'),
        say('COMP', 0.45, 'only a capacitor to ground'),
      );
    else if (farads < 47e-9)
      found.push(say('COMP', 0.5, 'only a capacitor to ground'), say('UNKNOWN', 0.45, 'soft start or compensation'));
    else
      found.push(
        say('COMP', 0.56, 'only a capacitor to ground'),
        say('VOUT', 0.5 + shared(ic, net), 'a capacitor to ground and no feed: a reference output'),
        say('UNKNOWN', 0.5, 'soft start or a reference'),
      );
    // A part that lives on its input makes its own supply.
    if (farads >= 1e-6 && ic.nets.some((n) => n !== net && scene.supplies.has(n) && !isHigh(a, n)))
      found.push(say('VCC', 0.57, 'a capacitor of its own holds it: an inner supply'));
  }
  return found;
};

function shared(ic: Branch, net: string): number {
  return ic.nets.filter((n) => n === net).length > 1 ? 0.15 : 0;
}

const supply: Rule = (scene, net) => {
  const { anatomy: a, ic, secondaries, supplies } = scene;
  const local = ic.nets.filter((n) => scene.converters.some((c) => c.ics.includes(ic) && c.nodes.includes(n)));
  const held = a.graph
    .on(net, 'capacitor')
    .filter(
      (p) =>
        p.branch.value! >= 90e-9 && (a.grounds.has(farEnd(p.branch, net)) || local.includes(farEnd(p.branch, net))),
    );
  if (held.length === 0 || a.grounds.has(net)) return [];
  if (isDivided(a, net) && a.graph.on(net, 'diode', 'regulator', 'inductor', 'bridge').length === 0) return [];
  if (supplies.has(net) && !isHigh(a, net)) return [say('VIN', 0.9, 'on the input rail')];
  let score = 0.35;
  const why: string[] = ['a capacitor holds it'];
  const add = (points: number, reason: string): void => {
    score += points;
    why.push(reason);
  };
  const resistors = a.graph.on(net, 'resistor').map((p) => p.branch);
  const auxiliary = (n: string): boolean => secondaries.some((s) => s.auxiliary && s.rails.has(n));
  if (auxiliary(net) || resistors.some((r) => r.value! <= 120 && auxiliary(farEnd(r, net))))
    add(0.5, 'the auxiliary winding feeds it');
  else if (diodesAt(a, net, 'cathode').some((d) => !ic.nets.includes(d.nets[0]!))) add(0.3, 'a diode feeds it');
  if (resistors.some((r) => r.value! >= 10e3 && isHigh(a, farEnd(r, net))))
    add(0.3, 'a start-up resistor leads to the high-voltage rail');
  if (
    resistors.some(
      (r) => r.value! <= 20e3 && (scene.supplies.has(farEnd(r, net)) || feedsFromInput(scene, farEnd(r, net))),
    )
  )
    add(0.35, 'a resistor feeds it from a supply');
  if (resistors.some((r) => r.value! <= 20e3 && diodesAt(a, farEnd(r, net), 'cathode').length > 0))
    add(0.25, 'fed from a rectified point');
  if (resistors.some((r) => r.value! <= 470 && scene.outputs.has(farEnd(r, net))))
    add(0.45, 'a small resistor feeds it from an output rail');
  if (a.graph.on(net, 'diode').some((p) => p.pin === 1 && diodeClass(a.board, p.branch) === 'zener'))
    add(0.2, 'a zener limits it');
  if (diodesAt(a, net, 'anode').some((d) => isBootstrap(scene, d.nets[1]!)))
    add(0.45, 'it charges a bootstrap capacitor');
  if (a.graph.on(net, 'bridge').some((p) => p.pin === 2)) add(0.4, 'a bridge feeds it');
  if (a.graph.on(net, 'regulator').some((p) => p.pin === 2)) add(0.4, 'a regulator feeds it');
  if (scene.outputs.has(net) && score < 0.5) add(0.2, 'on an output rail');
  if (score < 0.4 && a.graph.on(net).some((p) => p.branch !== ic && p.branch.kind !== 'capacitor'))
    return [
      say('VCC', 0.4, why.join('; ')),
      say('VOUT', 0.65 + shared(ic, net), 'held by a capacitor and feeding others: a reference output'),
    ];
  return [say('VCC', Math.min(score, 0.98), why.join('; '))];
};

/** A net that a switch or link joins to a converter's supply. */
function feedsFromInput({ anatomy: a, supplies }: PinScene, net: string): boolean {
  return a.graph.on(net, 'switch', 'fuse', 'diode').some((p) => supplies.has(farEnd(p.branch, net)));
}

function isBootstrap({ anatomy: a, nodes }: PinScene, net: string): boolean {
  return a.graph.on(net, 'capacitor').some((p) => nodes.has(farEnd(p.branch, net)));
}

const highVoltage: Rule = (scene, net) => {
  const { anatomy: a } = scene;
  if (railCapacitors(a, net).length > 0) return isHigh(a, net) ? [say('HV', 0.55, 'on the high-voltage rail')] : [];
  const from = a.graph.on(net, 'resistor', 'diode').some((p) => {
    const far = farEnd(p.branch, net);
    return isHigh(a, far) || a.lines.some((l) => l.poles.some((pole) => pole.has(far)));
  });
  const lower = a.graph.on(net, 'resistor', 'capacitor').some((p) => a.grounds.has(farEnd(p.branch, net)));
  return from && !lower && !scene.outputs.has(net) && !scene.nodes.has(net)
    ? [say('HV', 0.9, 'straight from the high-voltage rail, nothing holds it')]
    : [];
};

const enable: Rule = (scene, net) => {
  const { anatomy: a, ic } = scene;
  const found: RoleScore[] = [];
  const resistors = a.graph.on(net, 'resistor').map((p) => p.branch);
  const lower = a.graph.on(net, 'resistor', 'ntc').some((p) => a.grounds.has(farEnd(p.branch, net)));
  const fromInput = resistors.some((r) => scene.supplies.has(farEnd(r, net)) || feedsFromInput(scene, farEnd(r, net)));
  if (fromInput && lower) found.push(say('EN', 0.75, 'a divider from the input'));
  if (a.graph.on(net, 'ntc').length > 0 && lower)
    found.push(say('EN', 0.75, 'a thermistor to ground pulls it down when hot'));
  const pulled = resistors.some((r) => !a.grounds.has(farEnd(r, net)));
  const held = a.transistors.some((t) => t.high === net && a.grounds.has(t.low) && t.branch !== ic);
  if (held && pulled) found.push(say('EN', 0.85, 'a transistor can hold it low'));
  if (fromInput && !lower && !held && railCapacitors(a, net).length === 0)
    found.push(say('EN', 0.55, 'pulled up to the input'));
  const twin = ic.nets.filter((n) => n === net).length > 1;
  if (twin && isRail(a, net) && !a.grounds.has(net)) found.push(say('EN', 0.5, 'tied to another pin of its own'));
  if (a.graph.on(net, 'connector').length > 0 && !isRail(a, net)) found.push(say('EN', 0.4, 'comes from a connector'));
  return found;
};

const indicator: Rule = ({ anatomy: a }, net) => {
  const lit = a.graph.on(net, 'resistor', 'diode').some(({ branch }) => {
    const far = farEnd(branch, net);
    const behind = isRail(a, far) || a.grounds.has(far) ? [] : a.graph.on(far, 'diode').map((p) => p.branch);
    const here = branch.kind === 'diode' ? [branch] : behind;
    return here.some((d) => diodeClass(a.board, d) === 'led');
  });
  return lit ? [say('UNKNOWN', 0.7, 'drives an indicator')] : [];
};

const between: Rule = ({ anatomy: a, ic }, net) => {
  const others = a.graph.on(net).filter((p) => p.branch !== ic);
  const chips = others.length > 0 && others.every((p) => p.branch.kind === 'ic');
  return chips ? [say('UNKNOWN', 0.6, 'goes to another integrated circuit only')] : [];
};

export const PIN_RULES: readonly Rule[] = [
  free,
  ground,
  switching,
  gate,
  bootstrap,
  sense,
  errorAmplifier,
  feedback,
  compensation,
  supply,
  highVoltage,
  enable,
  indicator,
  between,
];
