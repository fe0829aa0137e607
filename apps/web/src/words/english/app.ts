/** The application’s own pages. */
export const app = {
  thisWorkingCopyIsNotMade: 'This working copy is not made yet.',
  thereIsACardForA4: 'There is a card for A4 and one for Letter.',
  nuvetHasStumbled: 'Nuvet has run into an error',
  everythingThatWasSavedIsSafe: 'Everything that was saved is safe.',
  tryAgain: 'Try again',
  nuvet: 'Nuvet',
  fromAPictureToATrue: 'From a picture to a true-size cut pattern.',
  thereIsNoJobAtThis: 'There is no job at this address.',
  itMayHaveBeenDeleted: 'It may have been deleted.',
  toAllJobs: 'To all jobs',
};
