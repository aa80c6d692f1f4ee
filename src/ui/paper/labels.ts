import type { SheetKey } from './choice';

/** What each sheet is called. */
export const SHEET_LABELS: Readonly<Record<SheetKey, string>> = {
  measure: 'Measure-up',
  template: 'Template, true size',
  holes: 'Faces and hole chart',
  cutting: 'Pickups and senders',
  parts: 'Cut and parts list',
  schematic: 'Schematic and valves',
  strapping: 'Strapping table',
  correction: 'Gauge correction',
  card: 'Valve card',
  mounts: 'Mounts and bolts',
  pours: 'Calibration by pours',
  findings: 'Findings, to tick off',
};
