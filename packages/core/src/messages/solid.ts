/** What cannot be made solid as it is asked, and why. */
export const solid = {
  noOutlines: 'There is nothing to make solid yet: trace a closed outline, or say how wide drawn lines become.',
  nothingLeft: 'Nothing is left of the solid: all of it is cut away, or has no height.',
  noBody: (name: string) =>
    `“${name}” has no body: its top has to lie above its bottom, its sides may not meet below, and its outlines may not cross.`,
  edgesMadeSmaller: (name: string, asked: string, made: string) =>
    `The edges of “${name}” have no room for ${asked}: they are made ${made}.`,
  sphereGone: 'The outline that a part sphere stands on is gone. Choose another, or remove it.',
  noHangingHole: 'The base has no room for the hole to hang it by. Type a wider margin, or a smaller hole.',
  halfGone: 'An outline of a push-together pair is gone. Choose another, or remove the pair.',
  slotCutsThrough: (name: string, wide: string) =>
    `A slot ${wide} wide cuts “${name}” in two: it is wider than the arm that it lies in. Make the bodies thinner, or turn the slot.`,
  slotMisses: (name: string) => `The slot of “${name}” misses it. Turn the slot.`,
  wallTooThick: (name: string, thick: string) => `“${name}” has no room for a hollow with a wall of ${thick}: it is left solid.`,
  noPictureOfRelief: (name: string) =>
    `The picture of the relief on “${name}” is not at hand: its body ends flat. Choose a picture of the job.`,
  reliefMadeCoarser: (name: string, asked: string, made: string) =>
    `The relief on “${name}” has no room for places ${asked} apart: they are ${made} apart.`,
  reliefBelowBody: (name: string) => `The relief on “${name}” lies below the bottom of its body. Raise it, or lower the body.`,
  leaky: 'The solid is not closed: it cannot be printed. Move outlines apart that touch in a single place.',
  damaged: 'The file of the solid is damaged, or cut short.',
  tooLarge: (most: number) => `The solid has more than ${most} triangles.`,
};
