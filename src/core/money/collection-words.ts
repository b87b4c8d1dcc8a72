/** What a customer agrees to, in the words that they read: kept with the card. */
export const cardCollectionWords = (business: string): string =>
  `${business} may charge the cards I leave here, in my order, with what is due on my invoices. I am told the day before and can object; I can end this at any time.`;
