CREATE TABLE `claims` (
	`kind` text NOT NULL,
	`key` text NOT NULL,
	`owner` text NOT NULL,
	`owner_id` text NOT NULL,
	PRIMARY KEY(`owner`, `owner_id`, `kind`, `key`)
);
--> statement-breakpoint
CREATE INDEX `claims_key` ON `claims` (`kind`,`key`,`owner`,`owner_id`);--> statement-breakpoint
CREATE TABLE `projections` (
	`name` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL
);
--> statement-breakpoint
ALTER TABLE `machines` DROP COLUMN `identity`;