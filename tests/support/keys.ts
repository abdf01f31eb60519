/** A public key that opens nothing: its private half was thrown away. */
export const A_KEY =
  "ssh-ed25519 AAAAC3NzaC1lZDI1NTE5AAAAILOIOsYLAkarzjsjhri2Qy9m83me3hcpWifGeDGfgTDM jpell@works";

/** Another one, of somebody else. */
export const B_KEY =
  "ssh-ed25519 AAAAC3NzaC1lZDI1NTE5AAAAIFHEOsb5mLgLv95kYDuFmA/PKXBKK/8JCOMH7pTDce1I harkle@works";

/** A hash in the form of crypt(3), of a password that nobody uses. */
export const A_HASH = `$6$saltSALT12345678$${"pK96hIIf1tE2y8lb".repeat(6).slice(0, 86)}`;

/** An account of a sheet, its keys without a last day. */
export const anAccount = (name: string, role: string, logIn: string, keys: string[] = []) => ({
  ...{ name, role, logIn },
  keys: keys.map((line) => ({ line, until: "" })),
});
