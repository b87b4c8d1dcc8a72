/** The parts of set-up, in the order in which owners do them. */
export const parts = [
  { path: "business", name: "Business", about: "Who you are, how you write, your taxes and texts" },
  { path: "hours", name: "Hours", about: "When you are open, and the days that are different" },
  { path: "technicians", name: "Technicians", about: "Who does the visits, what they may do and when they work" },
  { path: "people", name: "People", about: "Who signs in, and what each of them may do" },
  { path: "services", name: "Services", about: "What can be booked: price, minutes, skills, questions" },
  { path: "extras", name: "Extras", about: "Parts and products that can be added to a service" },
  { path: "prices", name: "Prices", about: "The prices of many services changed at once" },
  { path: "coupons", name: "Coupons", about: "Codes that take something off a booking" },
  { path: "zones", name: "Zones", about: "Where you go, on which days, on what terms" },
  { path: "windows", name: "Windows", about: "The spans in which you promise to arrive, and how one books" },
  {
    path: "front-door",
    name: "Front door",
    about: "How your booking page looks, what it says and asks, and who hears of bookings",
  },
  { path: "sharing", name: "Sharing", about: "The links to your front door, and what came by each" },
] as const;

export type PartPath = (typeof parts)[number]["path"];
