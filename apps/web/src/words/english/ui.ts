/** Shared parts: fields, requests, failures. */
export const ui = {
  aNumberIsNeeded: 'A number is needed.',
  atLeast: (limit: string) => `At least ${limit}.`,
  atMost: (limit: string) => `At most ${limit}.`,
  tryAgain: 'Try again',
  thisPartOfThePageHas: 'This part of the page has failed.',
  yourWorkIsKept: (message: string) => `Your work is kept. (${message})`,
  theServerCannotBeReached: 'The server cannot be reached.',
  unexpectedReplyFromTheServer: 'Unexpected reply from the server.',
  stoppedNothingWasBroughtIn: 'Stopped. Nothing was brought in.',
};
