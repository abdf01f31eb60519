import { message } from "../../finding";

/** The words of the rules about names, accounts and what the installer asks; {facts} come from the hit. */
export const ANSWERS_MESSAGES = {
  "answers.host-name": message(
    "Host name",
    '"{name}" is no host name: {problem}.',
    "Letters, digits and hyphens, at most 63.",
    "Certificates and clusters take the name at once and are hard to change.",
  ),
  "answers.name-taken": message(
    "Host name in use",
    "{name} is the name of {owner}.",
    "Choose another.",
    "Two machines under one name are mistaken for each other in every log.",
  ),
  "answers.name-pattern": message(
    "Name beside the pattern",
    '"{name}" is none of the names that this site gives such machines ({pattern}).',
    "Take the next free one, or say why this machine has another.",
    "Who looks for a machine at night looks where its name says that it is.",
  ),
  "answers.name-stays": message(
    "A name for good",
    "{profile} is known to a cluster by the name {name} and its address, and the site has no pattern for names of such machines.",
    "Lay a pattern down on the page of the site, or set this aside once the name is thought over.",
    "Once a host belongs to a cluster, another name or address means taking it out and building it anew.",
  ),
  "answers.domain": message(
    "Domain",
    "Of the domain: {state}.",
    "Use the site's domain, or one under .internal or home.arpa.",
    "An invented public name belongs to somebody, today or tomorrow.",
    {
      state: {
        required: "there is none, and {profile} asks for one",
        wanted: "there is none, and {profile} wants one",
        wrong: "{problem}",
        foreign: '"{domain}" is neither the site\'s domain nor one kept apart for private use',
        invented:
          '"{domain}" is the name of the host with a public ending: whoever registers it has every name under it',
        "one word":
          '"{domain}" is an ending alone, which is not kept apart for private use and may be given to somebody',
        multicast:
          '"{domain}" ends with local, which is looked up by multicast (RFC 6762): half of the clients never ask the site\'s own server',
        nowhere: '"{domain}" is kept apart so that nothing is found under it (RFC 6761)',
      },
    },
  ),
  "answers.no-account": message(
    "Nobody could log in",
    "No account can administer the machine; {profile} asks for one.",
    "Add the super-user or an administrator.",
    "A machine without an account is installed twice.",
  ),
  "answers.account-name": message(
    "Account name",
    '"{name}": {problem}.',
    "Choose another name.",
    "The installer refuses it in the middle of its screens.",
  ),
  "answers.two-doors": message(
    "Two doors with a password",
    "{superUser} and {admin} may both log in with a password.",
    "Let one of them log in by key, or not at all.",
    "The super-user's password is the one that is tried from outside.",
  ),
  "answers.administrator": message(
    "No administrator",
    "{profile} wants an administrator beside the super-user.",
    "Add one.",
    "Daily work as super-user leaves no trace of who did it.",
  ),
  "answers.secrets": message(
    "Where the passwords are",
    "It is not written where the passwords are kept.",
    "Write the place, in words: a safe, an envelope number. Never the password.",
    "At three in the morning somebody else looks for it.",
  ),
  "answers.keyboard": message(
    "Keyboard layout",
    "Of the layout: {state}.",
    "Choose the layout that the console really sends.",
    'On an assumed layout @ and " change places, and the password is not what was typed.',
    {
      state: {
        none: "none is chosen: a password typed on an assumed layout may not be the one you think",
        "not offered": '"{keyboard}" is not offered by the installer',
      },
    },
  ),
  "answers.keyboard-moves": message(
    "Keyboards that differ",
    "The site's keyboards are {site}, the installer takes them for {installer}: {count} characters come out differently ({some}).",
    "Set the installer to the keyboard that sends, or choose passwords of characters that stay: the page of passwords makes them.",
    "A password that comes out differently locks out whoever types it on the right keyboard later.",
  ),
  "answers.key": message(
    "Public key",
    "{name}: {state}.",
    "Paste the line of the key file that ends in .pub, with whose it is.",
    "A key is a door: it opens for who holds it until somebody takes it out.",
    {
      state: {
        wrong: "a key cannot be read: {problem}",
        none: "it logs in by key, and no public key is on the sheet",
        past: "a key was to go on {until}",
      },
    },
  ),
  "answers.same-password": message(
    "One password, two doors",
    "The password of {opens} is also that of {others}.",
    "Give each its own.",
    "Who learns one of them, from a console that somebody looked at, holds the others too.",
  ),
  "answers.software": message(
    "Packages and services",
    "Of the {what}: {problem}.",
    "Write an address without a name or password in it, plain names of packages and services, and commands of one line without a secret.",
    "An installer that does not find them stops in the middle, on a drive that it has written already.",
  ),
  "answers.edition": message(
    "Edition",
    "Of the edition: {problem}.",
    "Choose one of those that the family has.",
    "Lines that differ in one word are chosen in haste, and another edition is another installation.",
  ),
  "answers.time-zone": message(
    "Time zone",
    "Of the time zone: {state}.",
    "Choose one of the IANA list, such as Europe/London.",
    "Logs in another time are compared wrongly in the one hour that counts.",
    {
      state: {
        empty: "none is given",
        wrong: '"{typed}" is not a time zone',
        other: "it differs from the site's {site}",
      },
    },
  ),
  "answers.parameter": message(
    "Parameter",
    "Of what the system is told: {problem}.",
    "Give the parameter on this sheet, at the machine, at the site or in the profile, or leave it out.",
    "A machine that is told half a word does something else, hours later and where nobody looks.",
  ),
  "answers.secret-open": message(
    "A secret in clear",
    '"{name}" is a secret, and its {from} has a value for it in clear.',
    "Take the value out there, change it where it is used, and seal the new one for this sheet.",
    "What stands in a document stands in its history, its exports and its copies.",
  ),
  "answers.first-start": message(
    "Nobody runs these",
    "{count} commands are to run at the first start, and this machine does not install itself over the network from Derrick, which alone runs them.",
    "Move them to the commands at the end of the installation, or choose the way by network where the site has it on.",
    "Work that is written down and never done is found when it is needed.",
  ),
  "answers.fixed-wait": message(
    "A wait by the clock",
    'A command waits for a fixed time: "{command}".',
    "Let it ask until what it waits for is there, with an end: until curl -fsS ADDRESS; do sleep 5; done.",
    "On a slow day the time is too short and the rest fails without a word; on every other it is lost.",
  ),
  "answers.left-behind": message(
    "Left behind",
    "After the installation {state}.",
    "Leave it out, or say until when: a shell by its service in zone E with the day on which it is closed.",
    "What is opened or hidden for one evening is found a year later by somebody else.",
    {
      state: {
        shell: 'a shell stays open, without a day on which it is closed ("{what}")',
        hidden: 'nobody sees what a command complains of ("{what}")',
      },
    },
  ),
};
