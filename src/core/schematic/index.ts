export { schematicGraph } from './schematicGraph';
export type { SchematicGraph, SchematicWire, SymbolBox, SymbolPort } from './schematicGraph';
