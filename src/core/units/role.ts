/**
 * What a number is for. The same kind is read in different units by role: a
 * tank is measured in mm or inches, a trip in km, a hose run in m or feet.
 */
export type Role =
  | 'tape'
  | 'bore'
  | 'thickness'
  | 'run'
  | 'trip'
  | 'seaTrip'
  | 'area'
  | 'smallArea'
  | 'tankVolume'
  | 'smallVolume'
  /** What a dosing pump gives at a stroke. */
  | 'dose'
  | 'mass'
  /** What wheels, couplings and hulls bear. */
  | 'load'
  | 'density'
  | 'duration'
  /** Of what swings or rolls once. */
  | 'period'
  | 'roadSpeed'
  | 'seaSpeed'
  | 'lineSpeed'
  | 'acceleration'
  | 'force'
  | 'torque'
  | 'stiffness'
  | 'frequency'
  | 'burn'
  | 'transfer'
  | 'pressure'
  | 'slope'
  | 'temperature'
  | 'voltage'
  | 'resistance'
  | 'current'
  | 'power'
  | 'share'
  | 'count'
  | 'viscosity'
  | 'charge'
  | 'consumption';
