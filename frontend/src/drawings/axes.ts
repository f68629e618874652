/** Axes differ by line style and label, never by colour. */
export const DASHES: Record<string, string> = {
  slide: '',
  pan: '7 4',
  tilt: '1.5 3.5',
  roll: '9 3 2 3',
  focus: '14 3',
  zoom: '4 2 1 2 1 2'
};
export const UNITS: Record<string, string> = {
  slide: 'mm',
  pan: 'deg',
  tilt: 'deg',
  roll: 'deg',
  focus: 'mm',
  zoom: 'focal'
};
