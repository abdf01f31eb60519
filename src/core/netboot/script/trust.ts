/**
 * What curl and wget are told so that they believe one public key and no other; nothing over plain http. `pin` is the SHA-256 of
 * the key in base64. A wget that does not know the word sends nothing.
 */
export const trusting = (pin: string): { curl: string; wget: string } =>
  pin === ""
    ? { curl: "", wget: "" }
    : {
        curl: ` -k --pinnedpubkey sha256//${pin}`,
        wget: ` --no-check-certificate --pinnedpubkey=sha256//${pin}`,
      };
