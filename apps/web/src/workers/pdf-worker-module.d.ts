/** The PDF reader's other half, which its package ships without types. */
declare module 'pdfjs-dist/build/pdf.worker.mjs';
