/** What routes call beside operations and views: sessions, pictures, and what gateways bring. */
export type { Checked } from "@/kernel/laws";
export { keepDocument, keepRecording, readRecording } from "@/modules/messages/files";
export { stopByMessage } from "@/modules/messages/operations/stop-by-message";
export { noteOpened } from "@/modules/messages/operations/record-delivery";
export { noteDelivery } from "@/modules/messages/operations/record-delivery";
export { receiveCall, receiveMail, receiveText } from "@/modules/messages/operations/receive";
export { recordDispute } from "@/modules/money/operations/disputes";
export { chargeHeldCard } from "@/modules/money/operations/door-cards";
export { recordCharge } from "@/modules/money/operations/record-outcomes";
export { addOwnFactor, changeOwnPassword, endOthers, removeOwnFactor } from "@/modules/people/own-account";
export { actorOfSession, homeOf, personOfMail, signIn, signOut } from "@/modules/people/sessions";
export { isPurpose, readImage, takeImage } from "@/modules/pictures/images";
