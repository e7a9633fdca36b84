/** Limits, with their reasons in product.md, "Making safe". */
export const TOUCH_LIMIT_VOLTS = 60;
export const WET_TOUCH_LIMIT_VOLTS = 30;
export const METER_LIMIT_VOLTS = 0.2;
export const TOUCH_LIMIT_JOULES = 10;

/** Key and designator of what is not traced. */
export const UNTRACED = 'not-traced';
