import { inviteToday } from "./inviting";

it("invites those for whom there is room, in their order, as many as a day allows", () => {
  expect(inviteToday({ asked: [], waiting: [true, false, true, true], most: 2 })).toEqual({ invite: [0, 2] });
});

it("waits while all the room is kept for those who have not answered", () => {
  expect(inviteToday({ asked: [true, true], waiting: [false], most: 5 })).toEqual({ invite: [] });
});

it("is full where nobody is awaited and nobody fits", () => {
  expect(inviteToday({ asked: [false], waiting: [false, false], most: 5 })).toEqual({ full: true });
});

it("invites nobody more once the day has had its share", () => {
  expect(inviteToday({ asked: [true], waiting: [true], most: 0 })).toEqual({ invite: [] });
});
