import type { Draw } from '../stroke';
import { npn, pnp } from './bipolar';
import { bridge } from './bridge';
import { capacitor } from './capacitor';
import { connector } from './connector';
import { crystal } from './crystal';
import { mov, ntc } from './dependent';
import { diac } from './diac';
import { diode, led, schottky, tvs, zener } from './diode';
import { electrolytic } from './electrolytic';
import { fan } from './fan';
import { fuse } from './fuse';
import { igbt } from './igbt';
import { coreInductor, inductor } from './inductor';
import { integrated } from './integrated';
import { lamp } from './lamp';
import { nmos, pmos } from './mosfet';
import { opto } from './opto';
import { regulator } from './regulator';
import { relay } from './relay';
import { resistor } from './resistor';
import { safetyCapacitor } from './safetyCapacitor';
import { shuntReference } from './shuntReference';
import { currentSource, voltageSource } from './source';
import { sparkGap } from './sparkGap';
import { openSwitch } from './switch';
import { thyristor } from './thyristor';
import { triac } from './triac';
import { choke, transformer } from './windings';

/** How each kind of symbol is drawn. */
export const SYMBOLS: Readonly<Record<string, Draw>> = {
  resistor,
  capacitor,
  electrolytic,
  'safety-capacitor': safetyCapacitor,
  inductor,
  'core-inductor': coreInductor,
  diode,
  schottky,
  zener,
  tvs,
  led,
  bridge,
  npn,
  pnp,
  nmos,
  pmos,
  igbt,
  triac,
  thyristor,
  diac,
  opto,
  'shunt-reference': shuntReference,
  regulator,
  fuse,
  ntc,
  mov,
  switch: openSwitch,
  relay,
  lamp,
  fan,
  crystal,
  'spark-gap': sparkGap,
  'voltage-source': voltageSource,
  'current-source': currentSource,
  connector,
  ic: integrated,
  transformer,
  'common-mode-choke': choke,
  'coupled-choke': choke,
};
