/** The parts of set-up, in the order in which owners do them, in the groups in which one looks for them. */
export const groups = [
  {
    name: "You",
    parts: [
      { path: "business", name: "Business", about: "Who you are, how you write, your taxes and papers" },
      { path: "hours", name: "Hours", about: "When you are open, and the days that are different" },
    ],
  },
  {
    name: "Team",
    parts: [
      {
        path: "technicians",
        name: "Technicians",
        about: "Who does the visits, what they may do and when they work",
      },
      { path: "people", name: "People", about: "Who signs in, and what each of them may do" },
      { path: "security", name: "Security", about: "What strangers may keep, second factors, and ways to the outside" },
    ],
  },
  {
    name: "What you sell",
    parts: [
      { path: "services", name: "Services", about: "What can be booked: price, minutes, skills, questions" },
      { path: "extras", name: "Extras", about: "Parts and products that can be added to a service" },
      { path: "job-patterns", name: "Job patterns", about: "Named pieces of work for the phone, quotes and repeats" },
      { path: "prices", name: "Prices", about: "The prices of many services changed at once" },
      { path: "coupons", name: "Coupons", about: "Codes that take something off a booking" },
      { path: "loyalty", name: "Loyalty", about: "Points for what is paid, used at the next booking" },
    ],
  },
  {
    name: "Where and when",
    parts: [
      { path: "zones", name: "Zones", about: "Where you go, on which days, on what terms" },
      { path: "windows", name: "Windows", about: "The spans in which you promise to arrive, and how one books" },
    ],
  },
  {
    name: "Front door",
    parts: [
      {
        path: "front-door",
        name: "Look and words",
        about: "How your booking page looks, what it says and asks, and who hears of bookings",
      },
      { path: "sharing", name: "Sharing", about: "The links to your front door, and what came by each" },
    ],
  },
  {
    name: "Messages",
    parts: [
      {
        path: "messages",
        name: "Reminders",
        about: "Reminders, the hours in which you write, and in which language",
      },
      {
        path: "occasions",
        name: "Occasions",
        about: "What goes out when, by which channels, and what it says",
      },
      {
        path: "reviews",
        name: "Reviews",
        about: "When customers are asked how it was, and where else they may write",
      },
      { path: "senders", name: "Senders", about: "From which address and number you write, with a test of each" },
    ],
  },
] as const;

export type SetupPart = (typeof groups)[number]["parts"][number];
export const parts: readonly SetupPart[] = groups.flatMap((group): readonly SetupPart[] => group.parts);

export type PartPath = SetupPart["path"];
