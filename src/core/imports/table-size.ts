/** As many rows and columns as are imported at once. */
export const mostRows = 20_000;
export const mostColumns = 60;
