/** What runs beside the page. */
export const workers = {
  thePictureCouldNotBeRead: 'The picture could not be read from the server.',
};
