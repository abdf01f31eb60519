export { Bytes, type Span } from "./bytes";
