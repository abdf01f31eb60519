// The same cases, with the database on a server that is twenty milliseconds away.
process.env.DERRICK_TEST_DELAY = "20";
await import("../use-cases.test");
export {};
