export { arrangeRooms } from './arrangeRooms';
export type { Arrangement, BarrierLine, PlacedRoom, SizedRoom } from './arrangeRooms';
export { shortValue } from './labels';
export { ROOM_ROWS } from './rooms';
export type { RoomRow } from './rooms';
export { schematicGraph } from './schematicGraph';
export type { NetFlag, SchematicGraph, SchematicRoom, SchematicWire, SymbolBox, SymbolPort } from './schematicGraph';
