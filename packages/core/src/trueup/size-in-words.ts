/**
 * In: a length in mm. Out: a sentence's end that a person can check by eye, such as "longer than a bus".
 * Sizes of everyday things: common practice, rounded.
 */
const things: readonly (readonly [mm: number, name: string])[] = [
  [3, 'a grain of rice'],
  [10, 'a fingernail is wide'],
  [25, 'a walnut'],
  [55, 'a matchbox'],
  [85, 'a playing card'],
  [150, 'a hand'],
  [300, 'a sheet of writing paper'],
  [450, 'a forearm'],
  [900, 'a table is high'],
  [2000, 'a door'],
  [4500, 'a car'],
  [12_000, 'a bus'],
  [25_000, 'a railway coach'],
  [100_000, 'a football pitch'],
];

/** "longer than a bus", "about as long as a hand", "smaller than a grain of rice". */
export function sizeInWords(mm: number): string {
  const near = things.find(([size]) => Math.abs(Math.log(mm / size)) < 0.2);
  if (near) return `about as long as ${near[1]}`;
  const below = things.findLast(([size]) => size < mm);
  return below ? `longer than ${below[1]}` : `smaller than ${(things[0] as (typeof things)[0])[1]}`;
}
