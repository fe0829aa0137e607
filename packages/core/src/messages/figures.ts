/** What a figure lacks. */
export const figures = {
  mustBePositive: (name: string) => `The ${name} must be more than zero.`,
  stockUnknown: 'This slot follows the stock, whose thickness is not known yet. Type it under Make ready, or give the slot a width.',
};
