/** What the plan says of a piece beside its tags: how it hangs, how many there are, what they cost. */
export interface PieceDetails {
  readonly viewingM?: number
  /** Latitude and longitude, in degrees: made-up spots along a real coast. */
  readonly at?: readonly [number, number]
  readonly run?: number
  readonly cost?: number
  readonly reference?: string
}

export const DETAILS: Readonly<Record<string, PieceDetails>> = {
  PIERWEST: { viewingM: 0.6, at: [53.7031, 7.1502], run: 1, cost: 86, reference: 'SL-1101' },
  PIERHALL: { viewingM: 0.6, at: [53.7029, 7.1511], run: 1, cost: 86, reference: 'SL-1102' },
  LARKHOLM: { viewingM: 0.8, at: [53.7302, 7.2107], run: 1, cost: 240, reference: 'SL-1103' },
  TERNSANDS: { viewingM: 0.8, at: [53.7409, 7.3011], run: 1, cost: 240, reference: 'SL-1104' },
  SKERRY: { viewingM: 0.8, at: [53.7518, 7.4002], run: 1, cost: 240, reference: 'SL-1105' },
  'BUS-2': { viewingM: 2.4, run: 6, cost: 1980, reference: 'SL-1106' },
  'BUS-7': { viewingM: 2.4, run: 4, cost: 1320, reference: 'SL-1107' },
  WALLET: { viewingM: 0.2, run: 40000, cost: 2800, reference: 'SL-1110' },
  'TIDE-DE': { viewingM: 0.25, run: 12000, cost: 960, reference: 'SL-1120' },
  'TIDE-EN': { viewingM: 0.25, run: 4000, cost: 410, reference: 'SL-1121' },
  'TIDE-NL': { viewingM: 0.25, run: 5000, cost: 470, reference: 'SL-1122' },
  OFFICE: { viewingM: 0.5, at: [53.7033, 7.1508], run: 1, cost: 6, reference: 'SL-1123' },
  SURVEY: { viewingM: 0.3, run: 60, cost: 48, reference: 'SL-1124' },
  COASTER1: { viewingM: 0.3, at: [53.6952, 7.1488], run: 3000, cost: 330, reference: 'SL-1201' },
  COASTER2: { viewingM: 0.3, at: [53.6961, 7.1533], run: 3000, cost: 330, reference: 'SL-1202' },
  COASTER3: { viewingM: 0.3, at: [53.6902, 7.1402], run: 2000, cost: 260, reference: 'SL-1203' },
  SANDPIPER: { viewingM: 0.28, at: [53.6931, 7.1476], run: 120, cost: 95, reference: 'SL-1204' },
  DUNEHOUSE: { viewingM: 0.28, at: [53.6944, 7.1605], run: 90, cost: 80, reference: 'SL-1205' },
  SEALS: { viewingM: 1.5, at: [53.7033, 7.1508], run: 1, cost: 310, reference: 'SL-1206' },
  SEALSCREEN: { viewingM: 1.2, at: [53.7029, 7.1511], cost: 0, reference: 'SL-1207' },
  PASS: { viewingM: 0.2, run: 15000, cost: 1100 },
  COUNTER: { viewingM: 0.4, at: [53.7029, 7.1511], run: 3, cost: 54 },
  HOLDERS: { viewingM: 0.25, run: 1840, cost: 1290 },
  FAMILY: { viewingM: 0.25, run: 2500, cost: 240 },
  TERMS: { viewingM: 0.15, run: 15000 },
  STATION: { viewingM: 0.6, at: [53.5962, 7.2054], run: 2, cost: 150 },
  LIBRARY: { viewingM: 0.6, at: [53.5957, 7.2069], run: 1, cost: 75 },
  ADVENT: { viewingM: 0.2, run: 8000, cost: 720 },
  PAPER: { viewingM: 0.25, run: 22000, cost: 1450 },
  BAGS: { viewingM: 0.3, run: 30000, cost: 900 },
  FEST: { viewingM: 0.3, run: 9000, cost: 680 },
  STAGE: { viewingM: 4, at: [53.7012, 7.1529], run: 1, cost: 520 },
  CUPS: { viewingM: 0.25, run: 6000, cost: 390 },
  'W26-STATION': { viewingM: 0.6, at: [53.5962, 7.2054], run: 2, cost: 155 },
  'W26-LIBRARY': { viewingM: 0.6, at: [53.5957, 7.2069], run: 1, cost: 78 },
  'W26-TICKET': { viewingM: 0.2, run: 20000, cost: 1500 },
  'W26-PAPER': { viewingM: 0.25, run: 22000, cost: 1490 },
  'W26-PHONE': { viewingM: 0.25, run: 500, cost: 60 },
}
