/**
 * What the needle says against what is in the tank.
 *
 * Read `gauge.ts` first: `gaugeCurve` goes from volume to surface to float to
 * arm angle to resistance to needle. `sender.ts` holds the arm's geometry and
 * how far it swings free. A new kind of sender supplies its own resistance
 * against surface; a new kind of gauge its own `needleAt`.
 */
export { floatCentre_m, freeSwing, armAngle_rad, resistanceAt_ohm, type FreeSwing, type SwingArm } from './sender';
export { gaugeCurve, needleAt, readingAt, type GaugeCode, type GaugeCurve, type GaugePoint, type LinearGauge } from './gauge';
