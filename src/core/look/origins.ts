/** Whether a text is the origin of a site and nothing else: it goes into a header, where a semicolon would begin something new. */
export const isOrigin = (text: string): boolean => /^https?:\/\/[a-z0-9-]+(\.[a-z0-9-]+)+(:\d{1,5})?$/i.test(text);
