/** Where people would rather look than read. */
export const pictures = ['time', 'week', 'scatter', 'map'] as const;

export type Picture = (typeof pictures)[number];

export const pictureNames: { value: Picture; label: string }[] = [
  { value: 'time', label: 'Over time' },
  { value: 'week', label: 'Week by hours' },
  { value: 'scatter', label: 'Cost and conversions' },
  { value: 'map', label: 'Map' },
];
