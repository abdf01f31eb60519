/** Why a name is no host name (one label, RFC 1123 section 2.1), or null. */
export function hostNameProblem(name: string): string | null {
  if (name === "") return "a host name is required";
  if (/^\d{1,3}(\.\d{1,3}){3}$/.test(name)) return "this is an address, not a name";
  if (name.includes(".")) return "enter the domain in its own field";
  if (name.length > 63) return `${name.length} characters; the limit is 63`;
  if (!/^[a-z0-9-]+$/i.test(name)) return "only letters, digits and hyphens are allowed";
  if (/^-|-$/.test(name)) return "it must not begin or end with a hyphen";
  if (/^\d+$/.test(name)) return "a name of digits only can be mistaken for an address";
  return null;
}

/** Why a text is no domain (labels of RFC 1123, at most 253 characters with the host name's room), or null. */
export function domainProblem(domain: string): string | null {
  if (domain.length > 190) return "longer than 190 characters";
  const bad = domain.split(".").find((label) => !/^(?!-)[a-z0-9-]{1,63}(?<!-)$/i.test(label));
  return bad === undefined ? null : `the part "${bad}" is not valid`;
}

/** Why a text is no account name (the portable rule of useradd: 32 characters, lower case first), or null. */
export function accountNameProblem(name: string): string | null {
  if (name === "") return "a name is required";
  return /^[a-z_][a-z0-9_-]{0,31}$/.test(name)
    ? null
    : "use lower-case letters, digits, - and _, starting with a letter, at most 32 characters";
}
