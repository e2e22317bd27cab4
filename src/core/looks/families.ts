/** Families of looks, by what they feel like. */
export const lookFamilies = [
  { id: 'paper', label: 'Paper' },
  { id: 'paint', label: 'Paint' },
  { id: 'film', label: 'Film' },
  { id: 'walls', label: 'Walls' },
  { id: 'light', label: 'Light' },
] as const;
export type LookFamily = (typeof lookFamilies)[number]['id'];
