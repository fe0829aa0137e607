/** Panels of a die line, and what a wanted box lacks. */
export const folding = {
  panel: (count: number) => `Panel ${count}`,
  flap: (count: number) => `Flap ${count}`,
  tuck: (count: number) => `Tuck flap ${count}`,
  glue: (count: number) => `Glue flap ${count}`,
  panelNeeded: (what: string, w: string, h: string, name: string, x: string, y: string) =>
    `For ${what} ${w} x ${h} mm are needed; the nearest, ${name}, is ${x} x ${y} mm.`,
  panelsMissing: (what: string, count: number) => `For ${what} there ${count === 1 ? 'is a panel' : 'are panels'} missing.`,
};
