/** The text of a file without the mark that some editors put at its beginning. */
export const plainFile = (text: string): string => text.replace(/^\ufeff/, "");
