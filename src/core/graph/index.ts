export { DisjointSets } from './disjointSets';
export { minimumDegreeOrder } from './minimumDegreeOrder';
