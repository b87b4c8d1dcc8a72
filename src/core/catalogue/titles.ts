/** What is done, in words: "Chimney sweep, 2 × Alarm check". */
export const titleOf = (items: readonly { service: { name: string; seats: number }; quantity: number }[]): string =>
  items
    .map(({ service: { name, seats }, quantity }) =>
      quantity === 1 ? name : seats > 0 ? `${name}, ${quantity} seats` : `${quantity} × ${name}`,
    )
    .join(", ");
