import { message } from "../../finding";

/** The words of the rules about the way to the machine and the stick; {facts} come from the hit. */
export const MEDIA_MESSAGES = {
  "image.way-closed": message(
    "This way is closed",
    "By {way} the image does not reach this machine: {reason}",
    "Choose another way; they stand side by side.",
    "Better found here than in front of the cabinet.",
  ),
  "image.slow-way": message(
    "A quicker way is open",
    "By {way} it takes {takes} until the image is read; by {other} {less}.",
    "Compare the ways side by side.",
    "Walking to a machine costs minutes, a slow link hours.",
  ),
  "stick.no-identity": message(
    "Stick without a serial",
    "Nothing but its label tells {stick} from another one.",
    "Choose it from the drive register, or add it there with its serial.",
    "Writing programs offer the first stick that they find, and sometimes a drive.",
  ),
  "stick.other-image": message(
    "The stick carries something else",
    "{stick} is to be used as it is, and carries: {holds}. This build wants {image}.",
    "Let this build write it, or take the stick that carries the image.",
    "A label is older than what was written last.",
  ),
  "stick.not-compared": message(
    "Stick never read back",
    "{stick} was written on {at} and not compared afterwards.",
    "Read it back and compare, or let this build write it again.",
    "A worn stick takes what is written and gives something else back.",
  ),
  "stick.too-small": message(
    "Stick too small",
    "The image does not fit: {short} too little.",
    "Take a larger stick.",
    "Some writing programs stop silently when the stick is full.",
  ),
  "stick.holds-data": message(
    "The stick will be erased",
    "On the stick now: {holds}. Writing the image erases all of it.",
    "Copy it elsewhere first, or take another stick.",
    "The stick in reach is often somebody's only copy.",
  ),
};
