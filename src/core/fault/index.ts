export { OPEN_OHMS, SHORT_OHMS } from './fault';
export type { Fault } from './fault';
export { faultWords } from './faultWords';
export { formatFault, parseFault, parseFaults } from './parseFault';
export type { BadFault } from './parseFault';
