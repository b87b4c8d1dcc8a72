/** The front door's own colours: what stands out, what everything lies on, and what is written on either. */
export const ownLook = { accent: "#24443f", ground: "#fbfaf6", text: "#1e2a28", onAccent: "#fbfaf6" };

/** The colours as they are seen: the owner's where there are any. Empty stands for our own. */
export const lookOf = ({ accent, ground }: { accent: string; ground: string }): typeof ownLook => ({
  ...ownLook,
  accent: accent || ownLook.accent,
  ground: ground || ownLook.ground,
});
