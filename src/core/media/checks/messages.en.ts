import { message } from "../../finding";

/** The words of the rules about the way to the machine and the stick; {facts} come from the hit. */
export const MEDIA_MESSAGES = {
  "image.way-closed": message(
    "Boot source not available",
    "Boot source {way}: {reason}",
    "Choose another boot source; zone B compares them.",
    "Found on site, the problem delays the installation.",
  ),
  "image.slow-way": message(
    "Faster boot source available",
    "Boot source {way}: {takes} to load the image; {other}: {less}.",
    "Compare the boot sources.",
    "A slow link can take hours to load an image.",
  ),
  "stick.no-identity": message(
    "USB stick without a serial number",
    "{stick} can be identified by its label only.",
    "Choose it from the drive inventory, or add it there with its serial number.",
    "Writing programs offer the first removable device that they find, which can be a drive.",
  ),
  "stick.other-image": message(
    "USB stick holds something else",
    "{stick} is planned to be used as it is, and holds: {holds}. This build needs {image}.",
    "Let this build write it, or choose the stick that holds the image.",
    "The label of a stick can be older than its contents.",
  ),
  "stick.not-compared": message(
    "USB stick not verified",
    "{stick} was written on {at} and not verified.",
    "Verify it, or let this build write it again.",
    "A worn stick accepts writes and returns other data.",
  ),
  "stick.too-small": message(
    "USB stick too small",
    "The image does not fit: {short} too little.",
    "Choose a larger stick.",
    "Some writing programs stop without an error when the stick is full.",
  ),
  "stick.holds-data": message(
    "USB stick will be erased",
    "Contents of the stick: {holds}. Writing the image erases all of it.",
    "Back up its contents, or choose another stick.",
    "A stick can hold the only copy of a file.",
  ),
};
