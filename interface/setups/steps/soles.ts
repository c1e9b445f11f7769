/** Sole by kind of shoe, mm (thin 8–10, usual 12–15, stiff with cleat 18–25); common practice, no source. */
export const SOLES = [
  { value: '9', name: 'Thin' },
  { value: '13', name: 'Usual' },
  { value: '21', name: 'Stiff' },
] as const
