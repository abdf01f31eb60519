import { message } from "../../finding";

/** The words of the rules about the image, its profile and the road to it; {facts} come from the hit. */
export const IMAGE_MESSAGES = {
  "image.none": message(
    "No image chosen",
    "No image is chosen.",
    "Choose or add the image.",
    "Requirements, boot modes, screens and times come from the image and its profile.",
  ),
  "image.no-profile": message(
    "OS profile missing",
    "OS profile of this image: {state}.",
    "Choose the OS family that it is similar to, or import its profile as YAML.",
    "Without a profile, Derrick cannot derive steps.",
    {
      state: {
        unknown: "neither file name nor contents identify it",
        absent: "profile {profile} does not exist in this installation of Derrick",
      },
    },
  ),
  "image.no-checksum": message(
    "Published checksum missing",
    "{file} has no published checksum to verify it.",
    "Copy the checksum from the source of the image.",
    "A truncated image can boot and fail during the installation.",
  ),
  "image.bad-checksum": message(
    "Checksum invalid",
    "The published checksum is invalid: {problem}.",
    "Copy the whole checksum again.",
    "A mistyped checksum never matches.",
  ),
  "image.not-verified": message(
    "Image not verified",
    "The image has a published checksum, and {why}.",
    "Run {algorithm}sum on the file that you will use and paste the line on the page of the image.",
    "A damaged image fails during the installation.",
    {
      why: {
        "not computed": "no checksum was computed from the file",
        "other algorithm": "the computed one uses another algorithm",
      },
    },
  ),
  "image.checksum-differs": message(
    "Checksum does not match",
    "{file} does not match its published checksum.",
    "Download it again and compare again. Do not install from it.",
    "The file is damaged or was changed; what it would install is unknown.",
  ),
  "image.support-over": message(
    "Support has ended",
    "Support for this version ended on {ended}.",
    "Choose a later version, or record who accepts it and until when.",
    "It gets no more security updates.",
  ),
  "image.weak-checksum": message(
    "Weak checksum",
    "The published checksum is {algorithm}: it detects damage, but not deliberate changes.",
    "Look for a SHA-256 or SHA-512 list of the same vendor.",
    "A different file with the same weak checksum can be made on purpose.",
  ),
  "image.road-closed": message(
    "Installation method not available",
    "{road} is not available: {why}",
    "Choose another method, or add the supported upgrade to the profile.",
    "An unsupported upgrade can leave a system that later updates cannot handle.",
  ),
  "image.stone-missing": message(
    "Image of the intermediate version missing",
    "The upgrade path needs {stone}; its image is not in the library.",
    "Add its image; the steps already include it.",
    "The image is needed in the middle of the upgrade.",
  ),
  "image.stepping-stone": message(
    "Upgrade needs an intermediate version",
    "First upgrade to {stones}. {why}",
    "Plan the time for both; the steps include them.",
    "A direct upgrade from the present version is not supported.",
  ),
  "image.road-loses": message(
    "Data lost by this installation method",
    "{found} is installed. “{road}” does not keep: {loses}.",
    "Back up what is needed, or choose another method.",
    "Lost configuration is often noticed weeks later.",
  ),
  "image.road-kept": message(
    "Another method keeps more data",
    "{found} is installed, and “{road}” is available: it keeps {keeps}.",
    "Compare the installation methods; a fresh installation is right if the present system is not trusted.",
    "A fresh installation loses settings that an upgrade keeps.",
  ),
  "image.known-fault": message(
    "Known fault",
    "{profile}: {looks}",
    "{remedy}",
    "The fault is known from earlier installations.",
  ),
  "image.profile-newer": message(
    "Newer profile revision",
    "The steps use revision {kept} of the OS profile; revision {newest} is available.",
    "Use the newer revision, or keep this one for a run that is already prepared.",
    "A new revision changes the steps of a prepared build.",
  ),
  "image.newer-exists": message(
    "Newer image in the library",
    "This image is version {version}; {newer} is in the library too.",
    "Use the newer image, or record the reason.",
    "An older image lacks security updates.",
  ),
  "image.odd-name": message(
    "Unusual file name",
    "The file name is {file}; names of {profile} contain {words}.",
    "Check the source of the file, and verify its checksum.",
    "Download pages also offer other files.",
  ),
  "image.maker-build": message(
    "Other image variant recommended",
    "Image variant: {says}.",
    "Use the vendor's image for this machine, or record why not.",
    "The vendor's image has drivers for its network and storage parts; the general image is newer.",
  ),
  "image.pre-release": message(
    "Pre-release",
    "{profile} is a pre-release, and this machine is in {use} use.",
    "Use it for tests in a lab; to use it in production, waive this with a reason.",
    "A pre-release can change until its release and gets no support.",
  ),
  "image.line-over": message(
    "Support of the release line has ended",
    "{profile} got its last updates on {ended}.",
    "Choose a later version, or record who accepts it and until when.",
    "It gets no more security updates.",
    { ended: { day: "{day}", unknown: "an unknown day" } },
  ),
  "image.damaged": message(
    "Image file damaged",
    "{file}: {fault}.",
    "Download it again, verify its checksum, and inspect it again.",
    "A truncated image can boot and fail when the missing part is read.",
  ),
  "image.size-differs": message(
    "File size differs",
    "The file has {seen}; recorded: {typed}.",
    "Correct the size, or find out which file this is.",
    "A different size means a different file.",
  ),
  "image.not-inspected": message(
    "Image not inspected",
    "The data of {file} was entered manually; its boot modes are unverified.",
    "Drop the file on the page of the image: it is read in the browser and not uploaded.",
    "The first kilobytes of an image show whether it boots.",
  ),
};
