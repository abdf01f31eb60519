export { bootSchools } from "./schools";
export { SCHOOLS, type School, type SchoolView } from "./view";
export { secondDevice, type Worth, type WorthAnswer } from "./worth";
