import { message } from "../../finding";

/** The words of the rules about the image, its profile and the road to it; {facts} come from the hit. */
export const IMAGE_MESSAGES = {
  "image.none": message(
    "No image",
    "No image is chosen.",
    "Choose or add the image.",
    "Requirements, modes, screens and times come from the image and its profile.",
  ),
  "image.no-profile": message(
    "Profile absent",
    "Of this image's family: {state}.",
    "Say which family it is like, or import its profile as YAML.",
    "Without a profile no steps can be derived.",
    {
      state: {
        unknown: "neither its name nor its inside tells it",
        absent: "its OS profile {profile} is not in this installation of Derrick",
      },
    },
  ),
  "image.no-checksum": message(
    "No published checksum",
    "Nothing tells whether {file} is whole and unchanged.",
    "Copy the checksum from where the image was published.",
    "A cut-off image may boot and fail in the middle of the installation.",
  ),
  "image.bad-checksum": message(
    "Checksum mistyped",
    "The published checksum cannot be right: {problem}.",
    "Copy it again, whole.",
    "A mistyped checksum can never match, and tempts one to go on without it.",
  ),
  "image.not-verified": message(
    "Never verified",
    "The image has a published checksum, and {why}.",
    "Run {algorithm}sum over the very file that you will use and paste the line on the image's sheet.",
    "Comparing costs a minute; a damaged image costs the evening.",
    {
      why: {
        "not computed": "nobody has computed it over the file",
        "other algorithm": "the computed one is of another algorithm",
      },
    },
  ),
  "image.checksum-differs": message(
    "Checksum differs",
    "{file} is not the file that was published.",
    "Fetch it again and compare again. Do not install from it.",
    "A file that differs is damaged or changed; what it would write to the disk is unknown.",
  ),
  "image.support-over": message(
    "Support has ended",
    "Support for this version ended on {ended}.",
    "Choose a later version, or state who accepts it and until when.",
    "No more corrections come for it.",
  ),
  "image.weak-checksum": message(
    "Weak checksum",
    "The published checksum is {algorithm}: it tells damage, and not a change made on purpose.",
    "Look for a SHA-256 or SHA-512 list of the same maker.",
    "Two different files with the same weak digest can be made by anybody with an evening to spare.",
  ),
  "image.road-closed": message(
    "No such road",
    "The road {road} is closed: {why}",
    "Choose another road, or give the profile the jump that is allowed.",
    "A jump that nobody supports may work, and leaves a system that no later update expects.",
  ),
  "image.stone-missing": message(
    "No image of the stepping stone",
    "The road leads over {stone}, and no image of it is on the shelf.",
    "Add its image; the steps for it are there already.",
    "The stone is needed in the middle of the work, when nothing else can be done.",
  ),
  "image.stepping-stone": message(
    "By way of a stepping stone",
    "{stones} comes first. {why}",
    "Plan for the time of both; the steps are on this sheet.",
    "A release that cannot be reached in one jump is met in front of the console otherwise.",
  ),
  "image.road-loses": message(
    "What this road loses",
    "{found} is on the machine. On the road {road} these do not come along: {loses}.",
    "Save what is needed of them, or choose another road.",
    "What an installation does not carry over is noticed weeks later.",
  ),
  "image.road-kept": message(
    "Another road would keep more",
    "{found} is on the machine, and the road {road} is open: it keeps {keeps}.",
    "Look at the roads side by side; a fresh installation is right where the old one is not trusted.",
    "Whether to install fresh or in place is decided once, and seldom with both lists side by side.",
  ),
  "image.known-fault": message(
    "Known fault",
    "{profile}: {looks}",
    "{remedy}",
    "Somebody has met this before; it costs an evening only once.",
  ),
  "image.profile-newer": message(
    "A newer edition of the profile",
    "The steps are made from edition {kept} of the OS profile; edition {newest} is there.",
    "Take the newer edition, or keep this one for a run that is prepared already.",
    "Steps that change under a prepared build would surprise the person who carries it out.",
  ),
  "image.newer-exists": message(
    "A newer image is on the shelf",
    "This image is version {version}; {newer} is on the shelf too.",
    "Take the newer one, or say why not.",
    "The image in reach is the one from last time.",
  ),
  "image.odd-name": message(
    "Unusual file name",
    "The file is called {file}; those of {profile} have {words} in their names.",
    "Make sure that it came from the right page, and compare its checksum.",
    "Download pages offer other files beside the one that is wanted, in larger letters.",
  ),
  "image.maker-build": message(
    "General or maker's image",
    "About this image: {says}.",
    "Take the image that the maker of the machine offers for it, or write down why not.",
    "The maker's image holds drivers for its own network and storage parts; the general one is newer.",
  ),
  "image.pre-release": message(
    "Pre-release",
    "{profile} is a pre-release, and this machine is in {use} use.",
    "Use it for trials in a lab; a waiver with its reason lets a server of work have it.",
    "Its makers change what they like until it is released.",
  ),
  "image.line-over": message(
    "Support of the line has ended",
    "{profile} had its last corrections on {ended}.",
    "Choose a later version, or state who accepts it and until when.",
    "No more corrections come for it.",
    { ended: { day: "{day}", unknown: "an unknown day" } },
  ),
  "image.damaged": message(
    "The file is damaged",
    "{file}: {fault}.",
    "Fetch it again, compare its checksum, and look inside again.",
    "A download that ended early looks like an image and boots like one, until the part that is missing is read.",
  ),
  "image.size-differs": message(
    "Another size than noted",
    "The file has {seen}; {typed} is noted.",
    "Correct the size, or find out which file this is.",
    "Two releases with one name differ in size first.",
  ),
  "image.not-inspected": message(
    "Nobody has looked inside",
    "{file} was typed by hand; where it boots is what somebody said.",
    "Drop the file on the image's sheet: it is read in the browser and not sent anywhere.",
    "Whether an image boots is written in its first kilobytes.",
  ),
};
