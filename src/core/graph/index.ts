export { Bits } from './bits';
export { DisjointSets } from './disjointSets';
export { assign } from './assign';
export { minimumDegreeOrder } from './minimumDegreeOrder';
