import { inductorsAt, transformerOf } from './anatomy';
import type { Anatomy } from './anatomy';
import { diodesAt } from './cells';
import { diodeClass, farEnd } from './partGraph';
import type { Branch } from './partGraph';
import { say } from './pinScene';
import type { PinScene, RoleScore, Rule } from './pinScene';
import { isRail, railCapacitors } from './rails';

export const errorAmplifier: Rule = ({ anatomy: a, loops }, net) => {
  const sensed = a.graph.on(net, 'resistor').some((p) => a.currents.has(farEnd(p.branch, net)));
  if (loops.some((l) => l.input === net))
    return [say('FB', sensed ? 0.5 : 0.95, 'the input of an amplifier that its output is fed back to')];
  return loops.some((l) => l.output === net) ? [say('COMP', 0.95, 'the output of an amplifier, fed back')] : [];
};

export const feedback: Rule = (scene, net) => {
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
