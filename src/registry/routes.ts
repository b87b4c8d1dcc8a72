/** What routes call beside operations and views: sessions, pictures, and what gateways bring. */
export { receiveText } from "@/modules/messages/operations/receive-text";
export { recordDispute } from "@/modules/money/operations/disputes";
export { chargeHeldCard } from "@/modules/money/operations/door-cards";
export { recordCharge } from "@/modules/money/operations/record-outcomes";
export { addOwnFactor, changeOwnPassword, endOthers, removeOwnFactor } from "@/modules/people/own-account";
export { actorOfSession, homeOf, personOfMail, signIn, signOut } from "@/modules/people/sessions";
export { isPurpose, readImage, takeImage } from "@/modules/pictures/images";
