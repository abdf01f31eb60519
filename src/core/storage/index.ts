export {
  dispositionOf,
  drivesAlike,
  identityOf,
  installerSize,
  memberPartners,
  type Disposition,
} from "./guard";
