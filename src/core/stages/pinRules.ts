import { islandOf } from './anatomy';
import { diodesAt } from './cells';
import { errorAmplifier, feedback } from './feedbackRules';
import { diodeClass, farEnd } from './partGraph';
import type { Branch } from './partGraph';
import { isHigh, say } from './pinScene';
import type { PinScene, RoleScore, Rule } from './pinScene';
import { isDivided, isRail, railCapacitors } from './rails';

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

export const supply: Rule = (scene, net) => {
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
  if (resistors.some((r) => r.value! <= 120 && a.graph.on(farEnd(r, net), 'connector', 'fuse', 'switch').length > 0))
    add(0.35, 'a small resistor feeds it from an inlet');
  if (resistors.some((r) => r.value! <= 20e3 && diodesAt(a, farEnd(r, net), 'cathode').length > 0))
    add(0.25, 'fed from a rectified point');
  if (resistors.some((r) => r.value! <= 470 && scene.outputs.has(farEnd(r, net))))
    add(0.45, 'a small resistor feeds it from an output rail');
  if (a.graph.on(net, 'connector').some((p) => a.grounds.has(farEnd(p.branch, net))))
    add(0.35, 'a connector brings it');
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
  // Clamps to both supplies: a signal that is measured.
  const clamped = a.graph.on(net, 'diode').some((p) => p.pin === 1 && a.grounds.has(p.branch.nets[0]!));
  return from && !lower && !clamped && !scene.outputs.has(net) && !scene.nodes.has(net)
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

export const between: Rule = ({ anatomy: a, ic }, net) => {
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
