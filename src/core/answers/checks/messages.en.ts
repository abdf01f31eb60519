import { message } from "../../finding";

/** The words of the rules about names, accounts and what the installer asks; {facts} come from the hit. */
export const ANSWERS_MESSAGES = {
  "answers.host-name": message(
    "Host name invalid",
    '"{name}" is not a valid host name: {problem}.',
    "Use letters, digits and hyphens, at most 63 characters.",
    "Certificates and clusters store the name, so it is hard to change later.",
  ),
  "answers.name-taken": message(
    "Host name in use",
    "{name} is already the name of {owner}.",
    "Choose another name.",
    "Two machines with one name cannot be distinguished in logs.",
  ),
  "answers.name-pattern": message(
    "Host name does not match the site pattern",
    '"{name}" does not match the site pattern for such machines ({pattern}).',
    "Use the next free name, or record why this machine has another one.",
    "Staff find a machine by the location and role in its name.",
  ),
  "answers.name-stays": message(
    "Host name is hard to change later",
    "A cluster identifies {profile} by the name {name} and its address, and the site has no name pattern for such machines.",
    "Define a name pattern on the page of the site, or waive this once the name is final.",
    "To change name or address of a cluster member, you must remove the host and reinstall it.",
  ),
  "answers.domain": message(
    "Domain missing or unsuitable",
    "Domain: {state}.",
    "Use the domain of the site, or one under .internal or home.arpa.",
    "A made-up public domain can be registered by others, who then control its names.",
    {
      state: {
        required: "not set, and {profile} requires one",
        wanted: "not set, and {profile} recommends one",
        wrong: "{problem}",
        foreign: '"{domain}" is neither the domain of the site nor reserved for private use',
        invented:
          '"{domain}" is the host name with a public suffix: its registrant controls every name under it',
        "one word":
          '"{domain}" is a single label that is not reserved for private use and can be assigned as a public suffix',
        multicast:
          '"{domain}" ends with local, which is resolved by multicast DNS (RFC 6762), so many clients never query the DNS server of the site',
        nowhere: '"{domain}" is reserved so that no name under it resolves (RFC 6761)',
      },
    },
  ),
  "answers.no-account": message(
    "No account for administration",
    "No account can administer the machine; {profile} requires one.",
    "Add root or an administrator.",
    "Without such an account, the system must be reinstalled.",
  ),
  "answers.account-name": message(
    "Account name invalid",
    '"{name}": {problem}.',
    "Choose another name.",
    "The installer rejects it during the installation.",
  ),
  "answers.two-doors": message(
    "Two accounts allow password login",
    "{superUser} and {admin} both allow password login.",
    "Set one of them to key login or no login.",
    "The root account is the main target of password guessing.",
  ),
  "answers.administrator": message(
    "Administrator missing",
    "{profile} requires an administrator in addition to root.",
    "Add an administrator.",
    "Actions of root cannot be traced to a person.",
  ),
  "answers.secrets": message(
    "Password location missing",
    "No location is recorded for the passwords.",
    "Enter the location, for example a safe or an envelope number. Never enter the password.",
    "An on-call colleague needs it to log in.",
  ),
  "answers.keyboard": message(
    "Keyboard layout unsuitable",
    "Keyboard layout: {state}.",
    "Choose the layout that the console sends.",
    'With a wrong layout, characters such as @ and " are exchanged, and the stored password differs from the typed one.',
    {
      state: {
        none: "none is chosen, so a typed password can differ from the intended one",
        "not offered": 'the installer does not offer "{keyboard}"',
      },
    },
  ),
  "answers.keyboard-moves": message(
    "Keyboard layouts differ",
    "The keyboards of the site are {site}, the installer uses {installer}: {count} characters change ({some}).",
    "Set the installer to the layout of the console, or use only characters that do not change: the Passwords page generates them.",
    "The stored password differs from the typed one, so later logins on the right keyboard fail.",
  ),
  "answers.key": message(
    "Public key missing or invalid",
    "{name}: {state}.",
    "Paste the line of the key file that ends in .pub, and enter its owner.",
    "A key gives access to its holder until it is removed.",
    {
      state: {
        wrong: "a key is not valid: {problem}",
        none: "key login is set, and the sheet has no public key",
        past: "the end date {until} of a key has passed",
      },
    },
  ),
  "answers.same-password": message(
    "Password reused",
    "{opens} uses the same password as {others}.",
    "Set a different password for each.",
    "A person who learns one of these passwords can log in to the other accounts too.",
  ),
  "answers.software": message(
    "Packages or services invalid",
    "{what}: {problem}.",
    "Enter an address without user name and password, plain package and service names, and one-line commands without a secret.",
    "The installer stops after the drive has been written if it does not find them.",
  ),
  "answers.edition": message(
    "OS edition invalid",
    "OS edition: {problem}.",
    "Choose an edition of this OS family.",
    "A wrong edition has other features and needs a reinstallation.",
  ),
  "answers.time-zone": message(
    "Time zone missing or different",
    "Time zone: {state}.",
    "Choose one of the IANA list, for example Europe/London.",
    "Log entries of machines in different time zones are hard to correlate.",
    {
      state: {
        empty: "not set",
        wrong: '"{typed}" is not a time zone',
        other: "different from the time zone of the site, {site}",
      },
    },
  ),
  "answers.parameter": message(
    "Parameter invalid",
    "Parameters: {problem}.",
    "Set the parameter on this sheet, at the machine, at the site or in the profile, or remove it.",
    "Commands and kernel command lines with an unset parameter fail or have other effects.",
  ),
  "answers.secret-open": message(
    "Secret stored in clear text",
    '"{name}" is a secret, and its value is stored in clear text ({from}).',
    "Remove the value there, change the secret where it is used, and store the new value encrypted for this sheet.",
    "Values in a document are also in its history, exports and backups.",
  ),
  "answers.first-start": message(
    "First-boot commands will not run",
    "{count} first-boot commands are set, but only network installations from Derrick run them.",
    "Move them to the commands at the end of the installation, or choose network boot if the site has it enabled.",
    "The configuration of the machine stays incomplete.",
  ),
  "answers.fixed-wait": message(
    "Command uses a fixed delay",
    'A command waits for a fixed time: "{command}".',
    "Poll for the condition instead, with a limit: until curl -fsS ADDRESS; do sleep 5; done.",
    "If the delay is too short, the following commands fail; if it is too long, time is lost.",
  ),
  "answers.left-behind": message(
    "Temporary change remains",
    "After the installation {state}.",
    "Remove it, or set an end date: for a shell, add its service in zone E with an end date.",
    "Temporary access and hidden errors are easily forgotten.",
    {
      state: {
        shell: 'a shell stays open without an end date ("{what}")',
        hidden: 'the error output of a command is discarded ("{what}")',
      },
    },
  ),
};
