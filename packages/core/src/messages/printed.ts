/** A parameter as it stands in a text: words and lengths as they were printed. */
export type Printed = string;
